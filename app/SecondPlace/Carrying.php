<?php

declare(strict_types=1);

namespace App\SecondPlace;

/** Between two queued jobs each worker looks whether something is to be carried to the second place. */
final class Carrying
{
    private const EVERY_SECONDS = 3.0;

    private float $last = 0.0;

    public function __construct(private readonly Copies $copies)
    {
    }

    public function look(): void
    {
        if (microtime(true) - $this->last >= self::EVERY_SECONDS) {
            $this->last = microtime(true);
            $this->copies->call();
        }
    }
}
