<?php

declare(strict_types=1);

namespace App\Shelf;

use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Has a bag on the shelf read back again. */
final class VerifyBag implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 0;

    public int $timeout = 0;

    public function __construct(public readonly string $bagId)
    {
    }

    public function handle(Verifying $verifying): void
    {
        $verifying->again($this->bagId);
    }
}
