<?php

declare(strict_types=1);

namespace App\Intake;

use App\Almanac\HeldAlmanac;
use App\Bench\Acts\FirstLook;
use App\Bench\Acts\PlanJob;
use App\Bench\Exception\Refusal;
use App\Bench\JobState;
use App\Bench\Journal;
use App\Models\BenchJob;
use App\Models\User;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Device\Identity;

/** Takes in a device that is not plugged in, by what people can tell of it. It is planned for, and waits for its cable. */
final readonly class ByHand
{
    public function __construct(private HeldAlmanac $almanac, private Journal $journal, private PlanJob $plan)
    {
    }

    public function identify(Said $said): Identity
    {
        return $said->identity($this->almanac->almanac());
    }

    /** @param  array<string, int|string>|null  $goal  as in a situation document; the usual one where null */
    public function open(Said $said, ?array $goal, User $by): BenchJob
    {
        $device = $said->device($this->fitting($said));
        try {
            return DB::transaction(function () use ($said, $goal, $by, $device): BenchJob {
                $job = BenchJob::query()->create([
                    'serial' => $said->name(), 'held_serial' => $said->name(), 'state' => JobState::Open, 'opened_by' => $by->id,
                    'said' => $said->kept($by->name), 'device' => $device,
                ]);
                $this->journal->begin($job);
                $this->plan->for($job, $goal ?? FirstLook::usual($said->version));

                return $job;
            });
        } catch (UniqueConstraintViolationException) {
            throw Refusal::deviceHeld($said->name());
        }
    }

    /** More was found out about a device that still waits for its cable: the plan is made again. */
    public function correct(BenchJob $job, Said $said, User $by): void
    {
        if (! Waiting::isWaiting($job)) {
            throw Refusal::notNow('The device has told by itself what it is; nothing is said by hand any more.');
        }
        $device = $said->device($this->fitting($said));
        try {
            DB::transaction(function () use ($job, $said, $by, $device): void {
                $job->update(['serial' => $said->name(), 'held_serial' => $said->name(), 'said' => $said->kept($by->name), 'device' => $device]);
                $this->plan->for($job, $job->goal ?? FirstLook::usual($said->version));
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
