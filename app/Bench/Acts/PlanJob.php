<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\Exception\Refusal;
use App\Bench\HeldAlmanac;
use App\Bench\SituationOfJob;
use App\Bench\StepCode;
use App\Bench\StepState;
use App\Models\BenchJob;
use App\Ports\Exception\LinkLost;
use App\Ports\Exception\Refused;
use JadeStep\Core\Exchange\Exception\ExchangeException;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Permit\Exception\PermitException;
use JadeStep\Core\Route\Planner;

/** Makes the plan of a job for a goal, and keeps it with the job. */
final readonly class PlanJob
{
    public function __construct(private SituationOfJob $situation, private HeldAlmanac $almanac)
    {
    }

    /** The plan that a technician most often wants: back to the newest of the major before. */
    public function firstLook(BenchJob $job): void
    {
        try {
            $this->almanac->refresh();
        } catch (LinkLost|Refused|PermitException|ExchangeException) {
            // the held catalogue stays, and its age shows
        }
        $this->for($job, $job->goal ?? ['newestInMajor' => max(0, (int) ($job->device['version'] ?? '0') - 1)]);
    }

    /** @param  array<string, mixed>  $goal as in a situation document */
    public function for(BenchJob $job, array $goal): void
    {
        if ($job->device === null || in_array($job->step(StepCode::ChooseRoute)->state, [StepState::Done, StepState::Failed], true)) {
            throw Refusal::notNow('A route is planned after the device was read and before one is chosen.');
        }
        $plan = (new Planner($this->almanac->almanac()))->plan($this->situation->of($job, $goal));
        $job->update(['goal' => $goal, 'plan' => PlanDocument::of($plan), 'catalogue_id' => $this->almanac->newest()?->id]);
    }
}
