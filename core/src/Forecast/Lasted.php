<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/** How long something lasted, or at least lasted where its end was not seen (right-censored). */
final readonly class Lasted
{
    private function __construct(public float $time, public bool $ended)
    {
    }

    public static function until(float $time): self
    {
        return new self($time, true);
    }

    public static function atLeast(float $time): self
    {
        return new self($time, false);
    }
}
