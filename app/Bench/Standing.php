<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\BenchJob;
use App\Models\JobStep;

/** Where a job stands: the one step to look at now. */
final class Standing
{
    private const LINK_SECONDS = 10;

    /** A step that wants a hand comes before one that runs, and one that runs before one that waits. */
    public static function of(BenchJob $job): ?JobStep
    {
        $rank = static fn (JobStep $s): int => match ($s->state) {
            StepState::Failed => 0,
            StepState::Running => $s->problem === null ? 2 : 1,
            StepState::Ready => $s->problem === null ? 2 : 1,
            StepState::NeedsHand => 1,
            StepState::Waiting => 3,
            StepState::Done => 4,
        };
        $open = $job->steps->filter(static fn (JobStep $s): bool => $s->state !== StepState::Done)->sortBy([static fn (JobStep $a, JobStep $b): int => $rank($a) <=> $rank($b) ?: $a->id <=> $b->id]);

        return $open->first();
    }

    /**
     * What needs a hand comes first, and of that what has to begin soonest.
     *
     * @return array{int, string, int} to be compared
     */
    public static function urgency(BenchJob $job): array
    {
        $latest = $job->install_begun_at === null ? $job->latestStart() : null;
        $step = self::of($job);
        $hand = self::needsHand($step);
        // past the line a device that stands still has no other way than on
        $stuck = $hand && $job->install_begun_at !== null;

        return [$stuck ? 0 : ($hand ? 1 : 2), $latest ?? '9999', $job->id];
    }

    public static function needsHand(?JobStep $step): bool
    {
        return $step !== null && (self::waitsForLong($step) || in_array($step->state, [StepState::NeedsHand, StepState::Failed], true));
    }

    /** A line that breaks mostly comes back by itself: for that nobody is called at once. */
    private static function waitsForLong(JobStep $step): bool
    {
        return $step->problem !== null && (($step->problem['code'] ?? '') !== 'link-lost' || $step->problem_at === null || $step->problem_at->diffInSeconds(now()) >= self::LINK_SECONDS);
    }
}
