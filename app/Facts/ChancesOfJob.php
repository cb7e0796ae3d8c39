<?php

declare(strict_types=1);

namespace App\Facts;

use App\Almanac\HeldAlmanac;
use App\Models\BenchJob;
use JadeStep\Core\Forecast\Forecaster;
use JadeStep\Core\Forecast\RouteChance;
use JadeStep\Core\Forecast\ToldChance;
use JadeStep\Core\Forecast\WindowHistory;
use JadeStep\Core\Route\Route;
use Psr\Clock\ClockInterface;

/** What is estimated of the windows that a job's routes need: worked out when a plan is made, and kept with it. */
final readonly class ChancesOfJob
{
    public function __construct(
        private SituationOfJob $situation,
        private HeldAlmanac $almanac,
        private ClockInterface $clock,
    ) {
    }

    public function keep(BenchJob $job): void
    {
        $chances = $this->of($job);
        if (self::written($chances) !== self::written($job->chances)) {
            $job->update(['chances' => $chances]);
        }
    }

    /** @return list<ToldChance> one a route, where anything is told */
    private function of(BenchJob $job): array
    {
        if ($job->device === null || $job->goal === null || $job->install_begun_at !== null) {
            return [];
        }
        $almanac = $this->almanac->almanac();
        $forecaster = new Forecaster(WindowHistory::of($almanac), $this->clock->now());
        $situation = $this->situation->of($job, $job->goal);
        $chances = [];
        foreach (self::routes($job) as $route) {
            $told = ToldChance::of($route->id, RouteChance::of($almanac, $forecaster, $situation, $route));
            $told === null ? null : $chances[] = $told;
        }

        return $chances;
    }

    /** @return list<Route> those of the plan, and the one that was taken where it is none of them */
    private static function routes(BenchJob $job): array
    {
        $routes = $job->plan->routes ?? [];
        $taken = $job->route;

        return $taken === null || in_array($taken->id, array_map(static fn (Route $r): string => $r->id, $routes), true)
            ? $routes
            : [...$routes, $taken];
    }

    /**
     * @param  list<ToldChance>  $chances
     * @return list<array<string, mixed>> without what changes with every minute
     */
    private static function written(array $chances): array
    {
        return array_map(
            static fn (ToldChance $c): array => array_diff_key($c->fields(), ['permitAt' => 0]),
            $chances,
        );
    }
}
