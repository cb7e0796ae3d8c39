<?php

declare(strict_types=1);

namespace App\Shelf;

use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Reads a bag from outside and puts it on the shelf, or says why not. */
final class TakeBagIn implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 0;

    public int $timeout = 0;

    public function __construct(public readonly int $importId)
    {
    }

    public function handle(Importing $importing): void
    {
        $importing->run($this->importId);
    }
}
