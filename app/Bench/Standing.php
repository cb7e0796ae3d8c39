<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\BenchJob;
use App\Models\JobStep;

/** Where a job stands: the one step to look at now. */
final class Standing
{
    /** A step that wants a hand comes before one that runs, and one that runs before one that waits. */
    public static function of(BenchJob $job): ?JobStep
    {
        $rank = static fn (JobStep $s): int => match ($s->state) {
            StepState::Failed => 0,
            StepState::Running => $s->problem === null ? 2 : 1,
            StepState::Ready => $s->problem === null ? 2 : 1,
            StepState::NeedsHand => 3,
            StepState::Waiting => 4,
            StepState::Done => 5,
        };
        $open = $job->steps->filter(static fn (JobStep $s): bool => $s->state !== StepState::Done)->sortBy([static fn (JobStep $a, JobStep $b): int => $rank($a) <=> $rank($b) ?: $a->id <=> $b->id]);

        return $open->first();
    }

    public static function needsHand(?JobStep $step): bool
    {
        return $step !== null && ($step->problem !== null || in_array($step->state, [StepState::NeedsHand, StepState::Failed], true));
    }
}
