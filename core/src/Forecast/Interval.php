<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/** Two bounds of a chance, which hold it in 95 of 100 cases. */
final readonly class Interval
{
    /** The 97.5th percentile of the standard normal distribution. */
    private const Z = 1.959963984540054;

    private function __construct(public float $low, public float $high)
    {
    }

    public static function logLog(float $chance, float $logVariance): ?self
    {
        if ($chance <= 0 || $chance >= 1 || is_nan($logVariance) || is_infinite($logVariance)) {
            return null;
        }
        $spread = self::Z * sqrt($logVariance) / log($chance);

        return new self($chance ** exp(-$spread), $chance ** exp($spread));
    }
}
