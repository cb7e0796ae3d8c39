<?php

declare(strict_types=1);

namespace App\SecondPlace;

use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Has a sealed bag carried to the second place, brought back from there, or deleted there. */
final class CarryBag implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 0;

    public int $timeout = 0;

    public function __construct(public readonly string $bagId)
    {
    }

    public function handle(Copies $copies): void
    {
        $copies->work($this->bagId);
    }
}
