<?php

declare(strict_types=1);

namespace App\Intake;

use App\Almanac\HeldAlmanac;
use App\Facts\FirstPlan;
use App\Facts\JobFacts;
use App\Facts\JobPlanner;
use App\Facts\Variant;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Ledger\StepLedger;
use App\Models\BenchJob;
use App\Models\User;
use App\Refusal\Refusal;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Device\Identity;
use JadeStep\Core\Device\Said;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Route\Goal;

/**
 * Takes in a device that is not plugged in, by what people can tell of it. It is planned for, and waits for its
 * cable.
 */
final readonly class ByHand
{
    public function __construct(
        private HeldAlmanac $almanac,
        private StepLedger $ledger,
        private JobPlanner $planner,
        private JobFacts $facts,
        private Variant $variant,
        private Journal $journal,
    ) {
    }

    public function identify(Said $said): Identity
    {
        return $said->identity($this->almanac->almanac());
    }

    /** @param  Goal|null  $goal  the usual one where null */
    public function open(Said $said, ?Goal $goal, User $by): BenchJob
    {
        $device = $said->device($this->fitting($said));
        try {
            return DB::connection()->transaction(function () use ($said, $goal, $by, $device): BenchJob {
                $job = BenchJob::query()->create([
                    'serial' => $said->name(),
                    'held_serial' => $said->name(),
                    'state' => JobState::Open,
                    'opened_by' => $by->id,
                    'said' => $said->signedBy($by->name),
                    'device' => $device,
                ] + $this->variant->columns($device, null));
                $this->ledger->begin($job);
                $this->planner->keep($job, $goal ?? FirstPlan::usual($said->version));
                $this->journal->noteDeed(Deed::TakeIn, $by, new Evidence(['by hand' => true]), null, $job);

                return $job;
            });
        } catch (UniqueConstraintViolationException) {
            throw Refusal::deviceHeld($said->name());
        }
    }

    /** More was found out about a device that still waits for its cable: the plan is made again. */
    public function correct(BenchJob $job, Said $said, User $by): void
    {
        $this->facts->assertOpen($job, Act::CorrectSaid);
        $device = $said->device($this->fitting($said));
        try {
            DB::transaction(function () use ($job, $said, $by, $device): void {
                $job->update([
                    'serial' => $said->name(),
                    'held_serial' => $said->name(),
                    'said' => $said->signedBy($by->name),
                    'device' => $device,
                ] + $this->variant->columns($device, $job->about));
                $this->planner->keep($job, $job->goal ?? FirstPlan::usual($said->version));
                $this->journal->note(Act::CorrectSaid, $job, $by);
            });
        } catch (UniqueConstraintViolationException) {
            throw Refusal::deviceHeld($said->name());
        }
    }

    private function fitting(Said $said): Identity
    {
        $identity = $this->identify($said);

        return $identity->conflict === null ? $identity : throw Refusal::unfit($identity->conflict);
    }
}
