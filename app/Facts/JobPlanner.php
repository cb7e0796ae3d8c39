<?php

declare(strict_types=1);

namespace App\Facts;

use App\Almanac\HeldAlmanac;
use App\Models\BenchJob;
use App\Ports\DeviceReading;
use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Exchange\PlanDifference;
use JadeStep\Core\Exchange\PlanDifferences;
use JadeStep\Core\Exchange\SituationDocument;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Route\Plan;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Route\Pretences;

/**
 * Makes the plan of a job for a goal: to keep it, to see what differs from the accepted one, or to see what would be.
 */
final readonly class JobPlanner
{
    public function __construct(
        private SituationOfJob $situation,
        private HeldAlmanac $almanac,
        private ChancesOfJob $chances,
    ) {
    }

    /** Plans and keeps the plan with the job. */
    public function keep(BenchJob $job, Goal $goal): void
    {
        $job->update([
            'goal' => $goal,
            'plan' => $this->plan($job, $goal),
            'catalogue_id' => $this->almanac->forLine($job->readDevice()->osLine)?->id,
        ]);
        $this->chances->keep($job);
    }

    /** A plan made at this moment, with what the vendor gave no permit for after the rest. */
    public function plan(BenchJob $job, Goal $goal): Plan
    {
        return $this->planner()->plan($this->situation->of($job, $goal))->demoting($job->refused_permits);
    }

    /** From where the device stands in the middle of a crossing. */
    public function onward(BenchJob $job, Goal $goal, ?DeviceReading $now): Plan
    {
        return $this->planner()->plan($this->situation->pastLine($job, $goal, $now))->demoting($job->refused_permits);
    }

    /** @return list<PlanDifference> what a plan made at this moment says otherwise than the accepted one */
    public function sinceAccepted(BenchJob $job): array
    {
        return $job->accepted === null || $job->route === null || $job->goal === null
            ? []
            : PlanDifferences::between(
                $job->accepted->plan,
                $this->plan($job, $job->goal),
                $job->route,
                $job->readDevice(),
            );
    }

    /** The plan of what is pretended; it is kept nowhere. */
    public function pretending(BenchJob $job, Goal $goal, Pretences $pretences): Plan
    {
        $almanac = $this->almanac->almanac();

        return $this->planner()->plan($pretences->applyTo($this->situation->of($job, $goal), $almanac));
    }

    /**
     * Plans a situation document against the held almanac; it is kept nowhere.
     *
     * @throws InvalidDocument
     */
    public function ofDocument(string $situation): Plan
    {
        return $this->planner()->plan(SituationDocument::parse($situation));
    }

    private function planner(): Planner
    {
        return new Planner($this->almanac->almanac());
    }
}
