<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Batch\Internal\Problem;

/** Who goes first among those that may. */
enum PriorityRule: string
{
    case AsGiven = 'as-given';
    case EarliestWindow = 'earliest-window';
    case LeastSlack = 'least-slack';
    case LongestWay = 'longest-way';
    case ShortestWay = 'shortest-way';
    case MostHands = 'most-hands';

    /** @return list<float> a key for every step of a problem: the lowest goes first */
    public function keys(Problem $problem): array
    {
        $left = self::secondsLeft($problem);
        $keys = [];
        foreach ($problem->jobs as $step => $job) {
            $first = $problem->stepsOf[$job][0];
            $keys[] = $job >= $problem->devices
                ? -INF
                : match ($this) {
                    self::AsGiven => (float) $job,
                    self::EarliestWindow => self::window($problem, $job),
                    self::LeastSlack => self::window($problem, $job) - $left[$step],
                    self::LongestWay => (float) -$left[$first],
                    self::ShortestWay => (float) $left[$first],
                    self::MostHands => (float) -self::byHand($problem, $job),
                };
        }

        return $keys;
    }

    /** @return array<int, int> by step, how long it and all that follows takes at least */
    private static function secondsLeft(Problem $problem): array
    {
        $left = [];
        for ($step = count($problem->jobs) - 1; $step >= 0; $step--) {
            $after = array_map(static fn (int $next): int => $left[$next] ?? 0, $problem->next[$step]);
            $left[$step] = $problem->durations[$step] + max([0, ...$after]);
        }

        return $left;
    }

    /** The first moment by which a device has to be somewhere: a window's end, or the deadline. */
    private static function window(Problem $problem, int $job): float
    {
        $ends = array_filter(
            array_map(static fn (int $step): ?int => $problem->startBefore[$step], $problem->stepsOf[$job]),
            is_int(...),
        );

        return (float) min([$problem->deadline ?? PHP_INT_MAX, ...array_values($ends)]);
    }

    private static function byHand(Problem $problem, int $job): int
    {
        return array_sum(array_map(
            static fn (int $step): int => $problem->byHand[$step] ? $problem->durations[$step] : 0,
            $problem->stepsOf[$job],
        ));
    }
}
