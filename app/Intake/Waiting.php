<?php

declare(strict_types=1);

namespace App\Intake;

use App\Models\BenchJob;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** Jobs whose device was taken in by hand and was not plugged in since. */
final class Waiting
{
    /** @return Collection<int, BenchJob> those that may go on as soon as the device is there */
    public static function all(): Collection
    {
        $waits = static fn (Builder $q) => $q->where('code', StepCode::Pair)->where('state', StepState::NeedsHand);

        return BenchJob::open()->where('said', '!=', null)->whereHas('steps', $waits)->get();
    }
}
