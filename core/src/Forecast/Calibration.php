<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/**
 * Whether the chances that were told are to be believed: how often windows held where so much was said, and the score
 * of Brier (1950), the mean squared distance between the chance and what happened (0 is perfect), against that of
 * always telling the plain share of windows that held.
 */
final readonly class Calibration
{
    private const BANDS = 5;

    /**
     * @param  list<CalibrationBand>  $bands
     * @param  float|null  $score  null where nothing is judged yet
     * @param  float|null  $baseScore  of always telling the base rate
     * @param  float|null  $baseRate  the share that held
     */
    private function __construct(
        public int $told,
        public array $bands,
        public ?float $score,
        public ?float $baseScore,
        public ?float $baseRate,
    ) {
    }

    /** @param  list<Judged>  $judged */
    public static function of(array $judged): self
    {
        $all = count($judged);
        $base = $all === 0 ? null : count(array_filter($judged, static fn (Judged $j): bool => $j->held)) / $all;

        return new self(
            $all,
            array_map(static fn (int $band): CalibrationBand => self::band($band, $judged), range(0, self::BANDS - 1)),
            $base === null ? null : self::score($judged, null),
            $base === null ? null : self::score($judged, $base),
            $base,
        );
    }

    /**
     * @param  non-empty-list<Judged>|list<Judged>  $judged
     * @param  float|null  $always  the chance that is told whatever is asked; null for those that were told
     */
    private static function score(array $judged, ?float $always): float
    {
        $squares = array_map(
            static fn (Judged $j): float => (($always ?? $j->chance) - ($j->held ? 1 : 0)) ** 2,
            $judged,
        );

        return array_sum($squares) / max(1, count($squares));
    }

    /** @param  list<Judged>  $judged */
    private static function band(int $band, array $judged): CalibrationBand
    {
        $within = array_values(array_filter(
            $judged,
            static fn (Judged $j): bool => min(self::BANDS - 1, (int) floor($j->chance * self::BANDS)) === $band,
        ));
        $chances = array_map(static fn (Judged $j): float => $j->chance, $within);

        return new CalibrationBand(
            $band / self::BANDS,
            ($band + 1) / self::BANDS,
            count($within),
            count(array_filter($within, static fn (Judged $j): bool => $j->held)),
            $chances === [] ? null : array_sum($chances) / count($chances),
        );
    }
}
