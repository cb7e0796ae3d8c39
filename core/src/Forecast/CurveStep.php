<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/** What a survival curve is at one of the times at which something ended, or was last seen. */
final readonly class CurveStep
{
    /**
     * @param  int  $atRisk  how many were watched just before the time
     * @param  float  $survival  the chance to outlast the time
     * @param  float  $logVariance  Greenwood's sum: the variance of the logarithm of the chance
     */
    public function __construct(
        public float $time,
        public int $atRisk,
        public int $ended,
        public int $lastSeen,
        public float $survival,
        public float $logVariance,
    ) {
    }

    /** Greenwood's standard error of the chance; not a number where nothing is left. */
    public function standardError(): float
    {
        return $this->survival * sqrt($this->logVariance);
    }

    /**
     * The 95 % interval of the chance on the log-log scale (Kalbfleisch and Prentice, 1980), which stays within 0 and
     * 1. There is none before anything has ended, and where nothing is left.
     */
    public function interval(): ?Interval
    {
        return Interval::logLog($this->survival, $this->logVariance);
    }
}
