<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/**
 * What would have been told in the past, each week from what was known by then, of the windows that were open, and
 * whether they held: so that a shop sees whether to believe the forecast before it has told much itself.
 */
final class Replay
{
    private const EVERY_DAYS = 7;

    /**
     * @param  Horizon  $horizon  that the chance was asked for
     * @return list<Judged> in the order of time
     */
    public static function judged(WindowHistory $history, Horizon $horizon, \DateTimeImmutable $now): array
    {
        $judged = [];
        $superseded = array_map(static fn (PastWindow $w): \DateTimeImmutable => $w->supersededAt, $history->windows);
        if ($superseded === []) {
            return [];
        }
        $last = $now->modify("-{$horizon->value} days");
        for ($moment = min($superseded); $moment <= $last; $moment = $moment->modify('+'.self::EVERY_DAYS.' days')) {
            array_push($judged, ...self::judgedAt($history, $moment, $horizon->after($moment)));
        }

        return $judged;
    }

    /** @return list<Judged> */
    private static function judgedAt(
        WindowHistory $history,
        \DateTimeImmutable $moment,
        \DateTimeImmutable $then,
    ): array {
        $forecaster = new Forecaster($history, $moment);
        $judged = [];
        foreach ($history->windows as $window) {
            $isAsked = $window->supersededAt < $moment
                && $window->isOpenAt($moment)
                && ! $window->endAnnounced
                && $window->heldAt($then) !== null;
            $forecast = $isAsked ? $forecaster->ofWindow($window) : Silence::NotOpen;
            if ($forecast instanceof Forecast) {
                $judged[] = new Judged($forecast->chanceAt($then)->share, $window->isOpenAt($then));
            }
        }

        return $judged;
    }
}
