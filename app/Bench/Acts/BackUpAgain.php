<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\BagState;
use App\Bench\Exception\Refusal;
use App\Bench\Journal;
use App\Bench\StepCode;
use App\Bench\StepState;
use App\Models\BenchJob;

/** Starts a new bag before the line. The earlier one stays on the shelf as what it is. */
final readonly class BackUpAgain
{
    public function __construct(private Journal $journal)
    {
    }

    public function of(BenchJob $job): void
    {
        $safeguard = [StepCode::BackUp, StepCode::VerifyBackup, StepCode::SealBackup];
        $busy = $job->steps()->whereIn('code', [...$safeguard, StepCode::ProveSafety])->where('state', StepState::Running)->exists();
        if ($job->line_crossed_at !== null || $job->route === null || $busy) {
            throw Refusal::notNow('A new backup is taken before the erase line, when none is being written or verified.');
        }
        $job->bags()->whereIn('state', [BagState::Complete->value, BagState::Writing->value])->update(['state' => BagState::Damaged->value]);
        $this->journal->rewind($job, [...$safeguard, StepCode::CrossLine, StepCode::ProveSafety]);
    }
}
