<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

use JadeStep\Core\Evidence\Proportion;

/** Two bounds of a chance, which hold it in 95 of 100 cases. */
final readonly class Interval
{
    private function __construct(public float $low, public float $high)
    {
    }

    public static function logLog(float $chance, float $logVariance): ?self
    {
        if ($chance <= 0 || $chance >= 1 || is_nan($logVariance) || is_infinite($logVariance)) {
            return null;
        }
        $spread = Proportion::Z * sqrt($logVariance) / log($chance);

        return new self($chance ** exp(-$spread), $chance ** exp($spread));
    }
}
