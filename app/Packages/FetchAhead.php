<?php

declare(strict_types=1);

namespace App\Packages;

use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Asks a worker to fetch a package that no job waits for yet. */
final class FetchAhead implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 0;

    public int $timeout = 0;

    public function __construct(public readonly string $sha256)
    {
    }

    public function handle(Ahead $ahead): void
    {
        $ahead->run($this->sha256);
    }
}
