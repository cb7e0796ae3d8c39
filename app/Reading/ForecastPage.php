<?php

declare(strict_types=1);

namespace App\Reading;

use App\Almanac\HeldAlmanac;
use App\Models\ToldForecast;
use JadeStep\Core\Forecast\Calibration;
use JadeStep\Core\Forecast\Forecast;
use JadeStep\Core\Forecast\Forecaster;
use JadeStep\Core\Forecast\Horizon;
use JadeStep\Core\Forecast\Judged;
use JadeStep\Core\Forecast\Replay;
use JadeStep\Core\Forecast\WindowHistory;
use Psr\Clock\ClockInterface;

/** What is estimated of all open windows, and whether what was told before came true. */
final readonly class ForecastPage
{
    public function __construct(private HeldAlmanac $almanac, private ClockInterface $clock)
    {
    }

    /** @return list<Forecast> of every open window that is superseded and told of, the least likely in a month first */
    public function open(): array
    {
        $now = $this->clock->now();
        $told = (new Forecaster(WindowHistory::of($this->almanac->almanac()), $now))->ofAllOpen();
        $then = Horizon::Month->after($now);
        usort(
            $told,
            static fn (Forecast $a, Forecast $b): int => $a->chanceAt($then)->share <=> $b->chanceAt($then)->share,
        );

        return $told;
    }

    /** Of what this shop has told. */
    public function told(Horizon $horizon): Calibration
    {
        return Calibration::of(array_values(
            ToldForecast::query()
                ->where('days', $horizon->value)
                ->where('held', '!=', null)
                ->get()
                ->map(static fn (ToldForecast $t): Judged => new Judged($t->chance, $t->held === true))
                ->all(),
        ));
    }

    /** Of what would have been told in the past. */
    public function replayed(Horizon $horizon): Calibration
    {
        return Calibration::of(Replay::judged(
            WindowHistory::of($this->almanac->almanac()),
            $horizon,
            $this->clock->now(),
        ));
    }

    /** How many were told whose day has not come. */
    public function waiting(): int
    {
        return ToldForecast::query()->where('held', null)->count();
    }
}
