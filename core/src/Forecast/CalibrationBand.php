<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/** The chances between two bounds that were told: what was said on average, and how many windows held. */
final readonly class CalibrationBand
{
    /**
     * @param  float  $from  inclusive, 0 to 1
     * @param  float  $until  exclusive, but for 1
     * @param  float|null  $said  the mean of what was told; null where nothing was
     */
    public function __construct(
        public float $from,
        public float $until,
        public int $told,
        public int $held,
        public ?float $said,
    ) {
    }
}
