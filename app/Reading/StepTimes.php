<?php

declare(strict_types=1);

namespace App\Reading;

use App\Models\BenchJob;
use App\Models\JobStep;
use JadeStep\Core\Job\JobState;

/** Minutes as they were estimated when the route was taken, beside those that each step took. */
final class StepTimes
{
    /** @return list<StepTime> */
    public static function of(BenchJob $job): array
    {
        $estimates = [];
        foreach ($job->route->steps ?? [] as $step) {
            $estimates["{$step->step} {$step->leg}"] = $step->minutes;
        }
        $time = static fn (JobStep $s): StepTime => new StepTime(
            $s->code,
            $s->leg,
            $estimates["{$s->code->value} {$s->leg}"] ?? null,
            self::took($s),
        );

        return array_values($job->steps->map($time)->all());
    }

    /** Minutes of the machine's own work that is still ahead, by the estimates; null where none is known. */
    public static function left(BenchJob $job): ?float
    {
        $ahead = array_filter(
            $job->state === JobState::Open ? self::of($job) : [],
            static fn (StepTime $t): bool => ! $t->code->isByHand() && $t->took === null && $t->estimate !== null,
        );
        $minutes = array_map(static fn (StepTime $t): float => $t->estimate->expected ?? 0.0, $ahead);

        return $ahead === [] ? null : round(array_sum($minutes), 1);
    }

    private static function took(JobStep $s): ?float
    {
        $known = ! $s->code->isByHand() && $s->started_at !== null && $s->ended_at !== null;

        return $known ? round($s->started_at->diffInMilliseconds($s->ended_at) / 60_000, 2) : null;
    }
}
