<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\BagState;
use App\Bench\EndedLosses;
use App\Bench\Exception\Refusal;
use App\Bench\JobState;
use App\Bench\Journal;
use App\Bench\PassphraseLocker;
use App\Bench\StepCode;
use App\Bench\StepState;
use App\Models\BenchJob;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use Psr\Clock\ClockInterface;

/**
 * Ends a job: handed over (done, or done with losses that were named), given back unfinished past the line with the
 * reason, or left before the line with the device as it was.
 */
final readonly class EndJob
{
    public function __construct(private Journal $journal, private PassphraseLocker $locker, private ClockInterface $clock)
    {
    }

    /** @param  list<string>  $accepted  kinds that are missing something which was not named before, accepted by name */
    public function handOver(BenchJob $job, array $accepted, User $by): void
    {
        $open = array_values(array_diff($job->proof['unexpected'] ?? [], $accepted));
        $open === [] || throw Refusal::lossNotAccepted($open);
        DB::transaction(function () use ($job, $by): void {
            $this->journal->doneByHand($job->step(StepCode::HandOver));
            $losses = EndedLosses::of($job);
            $this->close($job, $losses === [] ? JobState::Done : JobState::DoneWithLosses, ['losses' => $losses, 'ended_by' => $by->name]);
        });
    }

    public function backedUp(BenchJob $job): void
    {
        $this->close($job, JobState::Done);
    }

    /** Past the line the device is only given back unfinished deliberately, with the reason; its bags stay. */
    public function giveBack(BenchJob $job, string $reason, User $by): void
    {
        if ($job->state !== JobState::Open || $job->install_begun_at === null) {
            throw Refusal::notNow('A device is given back unfinished past the erase line. Before it, leave the job: then the device is as it was.');
        }
        $job->steps->contains('do_not_disturb', true) ? throw Refusal::notNow('The device must not be disturbed at this moment. Wait until this step has ended.') : null;
        DB::transaction(function () use ($job, $reason, $by): void {
            $this->stop($job);
            $this->close($job, JobState::Unfinished, ['end_reason' => $reason, 'losses' => EndedLosses::of($job), 'ended_by' => $by->name]);
        });
    }

    public function leave(BenchJob $job, ?User $by = null): void
    {
        if ($job->state !== JobState::Open || $job->line_crossed_at !== null) {
            throw Refusal::notNow($job->install_begun_at === null && $job->line_crossed_at !== null
                ? 'The way to the install is open. Leave recovery mode first, which leaves everything as it was; then the job can be left too.'
                : 'Past the erase line a job can only go forward.');
        }
        DB::transaction(function () use ($job, $by): void {
            $this->stop($job);
            // nobody writes on at what was being written
            $job->bags()->where('state', BagState::Writing->value)->update(['state' => BagState::Damaged->value]);
            $this->close($job, JobState::Abandoned, ['ended_by' => $by?->name]);
        });
    }

    private function stop(BenchJob $job): void
    {
        $job->steps()->whereIn('state', [StepState::Ready->value, StepState::Running->value, StepState::NeedsHand->value])
            ->update(['state' => StepState::Waiting->value, 'claim' => null]);
    }

    /** @param  array<string, mixed>  $more */
    private function close(BenchJob $job, JobState $state, array $more = []): void
    {
        $this->locker->wipe($job);
        $job->update(['state' => $state, 'held_serial' => null, 'ended_at' => $this->clock->now()] + $more);
    }
}
