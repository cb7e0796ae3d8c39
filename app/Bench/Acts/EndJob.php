<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\BagState;
use App\Bench\Exception\Refusal;
use App\Bench\JobState;
use App\Bench\Journal;
use App\Bench\PassphraseLocker;
use App\Bench\StepCode;
use App\Bench\StepState;
use App\Models\BenchJob;
use Illuminate\Support\Facades\DB;
use Psr\Clock\ClockInterface;

/** Ends a job: handed over, or left before the erase line with the device as it was. */
final readonly class EndJob
{
    public function __construct(private Journal $journal, private PassphraseLocker $locker, private ClockInterface $clock)
    {
    }

    public function handOver(BenchJob $job): void
    {
        DB::transaction(function () use ($job): void {
            $this->journal->doneByHand($job->step(StepCode::HandOver));
            $this->close($job, JobState::Done);
        });
    }

    public function backedUp(BenchJob $job): void
    {
        $this->close($job, JobState::Done);
    }

    public function leave(BenchJob $job): void
    {
        if ($job->state !== JobState::Open || $job->line_crossed_at !== null) {
            throw Refusal::notNow($job->install_begun_at === null && $job->line_crossed_at !== null
                ? 'The way to the install is open. Leave recovery mode first, which leaves everything as it was; then the job can be left too.'
                : 'Past the erase line a job can only go forward.');
        }
        DB::transaction(function () use ($job): void {
            $job->steps()->whereIn('state', [StepState::Ready->value, StepState::Running->value, StepState::NeedsHand->value])
                ->update(['state' => StepState::Waiting->value, 'claim' => null]);
            // nobody writes on at what was being written
            $job->bags()->where('state', BagState::Writing->value)->update(['state' => BagState::Damaged->value]);
            $this->close($job, JobState::Abandoned);
        });
    }

    private function close(BenchJob $job, JobState $state): void
    {
        $this->locker->wipe($job);
        $job->update(['state' => $state, 'held_serial' => null, 'ended_at' => $this->clock->now()]);
    }
}
