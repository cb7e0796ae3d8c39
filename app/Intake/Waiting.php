<?php

declare(strict_types=1);

namespace App\Intake;

use App\Bench\JobState;
use App\Bench\StepCode;
use App\Bench\StepState;
use App\Models\BenchJob;
use Illuminate\Database\Eloquent\Collection;

/** Jobs whose device was taken in by hand and was not plugged in since. */
final class Waiting
{
    public static function isWaiting(BenchJob $job): bool
    {
        return $job->said !== null && $job->state === JobState::Open && $job->steps->firstWhere('code', StepCode::Pair)?->state !== StepState::Done;
    }

    /** @return Collection<int, BenchJob> those that may go on as soon as the device is there */
    public static function all(): Collection
    {
        return BenchJob::query()->where('state', JobState::Open)->where('said', '!=', null)
            ->whereHas('steps', static fn ($q) => $q->where('code', StepCode::Pair->value)->where('state', StepState::NeedsHand->value))->get();
    }
}
