<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Almanac\HeldAlmanac;
use App\Bench\Exception\Refusal;
use App\Bench\SituationOfJob;
use App\Bench\StepCode;
use App\Bench\StepState;
use App\Models\BenchJob;
use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Exchange\PlanDifferences;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Exchange\SituationDocument;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Route\Pretences;

/** Makes the plan of a job for a goal: to keep it, to see what differs from the accepted one, or to see what would be. */
final readonly class PlanJob
{
    public function __construct(private SituationOfJob $situation, private HeldAlmanac $almanac)
    {
    }

    /**
     * Plans and keeps the plan with the job.
     *
     * @param  array<string, mixed>  $goal as in a situation document
     */
    public function for(BenchJob $job, array $goal): void
    {
        if ($job->device === null || in_array($job->step(StepCode::ChooseRoute)->state, [StepState::Done, StepState::Failed], true)) {
            throw Refusal::notNow('A route is planned when it is known what the device is, and before one is chosen.');
        }
        $job->update(['goal' => $goal, 'plan' => $this->plan($job, $goal), 'catalogue_id' => $this->almanac->forLine($job->device['osLine'])?->id]);
    }

    /**
     * What a plan made at this moment says otherwise than the accepted one.
     *
     * @return list<array{code: string, words: string}>
     */
    public function sinceAccepted(BenchJob $job): array
    {
        return $job->accepted === null || $job->route === null ? [] : PlanDifferences::between($job->accepted['plan'], $this->plan($job, $job->goal ?? []), $job->route);
    }

    /**
     * The plan of what is pretended; it is kept nowhere.
     *
     * @param  array<string, mixed>  $goal
     * @return array<string, mixed> a plan document
     */
    public function pretending(BenchJob $job, array $goal, Pretences $pretences): array
    {
        $job->device ?? throw Refusal::notNow('What if is answered when it is known what the device is.');
        $almanac = $this->almanac->almanac();

        return PlanDocument::of((new Planner($almanac))->plan($pretences->applyTo($this->situation->of($job, $goal), $almanac)));
    }

    /**
     * Plans a situation document against the held almanac; it is kept nowhere.
     *
     * @return array<string, mixed> a plan document
     *
     * @throws InvalidDocument
     */
    public function ofDocument(string $situation): array
    {
        return PlanDocument::of((new Planner($this->almanac->almanac()))->plan(SituationDocument::parse($situation)));
    }

    /**
     * @param  array<string, mixed>  $goal
     * @return array<string, mixed>
     */
    private function plan(BenchJob $job, array $goal): array
    {
        return PlanDocument::of((new Planner($this->almanac->almanac()))->plan($this->situation->of($job, $goal)));
    }
}
