<?php

declare(strict_types=1);

namespace App\Acts;

use App\Facts\JobPlanner;
use App\Journal\Evidence;
use App\Ledger\StepLedger;
use App\Models\BenchJob;
use App\Models\User;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Refusal\Refusal;
use App\Steps\BackToTheLine;
use App\Steps\EnterRecovery;
use App\Steps\Install;
use JadeStep\Core\Exchange\GoalDocument;
use JadeStep\Core\Exchange\GoalText;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Record\AcceptedLosses;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Route\Plan;

/** What people do on the way across: recovery mode, another try, and the next route from where a device stands. */
final readonly class Cross
{
    public function __construct(
        private JobActs $acts,
        private JobPlanner $planner,
        private StepLedger $ledger,
        private BackToTheLine $line,
        private DeviceLink $link,
    ) {
    }

    public function askOverCable(BenchJob $job, User $by): void
    {
        $this->acts->carryOut(
            Act::AskOverCable,
            $job,
            $by,
            fn () => $this->ledger->tell($job->step(StepCode::EnterRecovery), EnterRecovery::BY_CABLE, true),
        );
    }

    /** The last yes, with the device in recovery mode: from here it is written to. */
    public function confirmInstall(BenchJob $job, User $by): void
    {
        $this->acts->carryOut(Act::ConfirmInstall, $job, $by, function () use ($job): void {
            $step = $job->step(StepCode::Install);
            $this->ledger->tell($step, Install::CONFIRMED, true);
            $this->ledger->goOn($step);
        });
    }

    /** The device leaves recovery mode as it was, and the job stands before the erase line again. */
    public function leaveRecovery(BenchJob $job, User $by): void
    {
        $this->acts->carryOut(Act::LeaveRecovery, $job, $by, fn () => $this->line->take($job, null));
    }

    public function tryAgain(BenchJob $job, StepCode $code, User $by): void
    {
        $this->acts->carryOut(Act::TryAgain, $job, $by, function () use ($job, $code): void {
            $failed = $job->steps()->where('code', $code)->where('state', StepState::Failed)->first();
            $this->ledger->retry($failed ?? $job->step($code));
        }, new Evidence(['step' => $code->value]));
    }

    /**
     * The plan for the job's own goal, and where it is another, for the version that the device came from.
     *
     * @return list<OnwardPlan>
     *
     * @throws Refusal where there is no going onward at this moment
     */
    public function onwardPlans(BenchJob $job): array
    {
        $this->acts->assertOpen(Act::GoOnward, $job);
        $back = Goal::exact($job->readDevice()->version);
        $reading = $this->reading($job);
        $goals =
            $job->goal === null || GoalText::words($job->goal) === GoalText::words($back)
                ? [$back]
                : [$job->goal, $back];

        return array_map(
            fn (Goal $goal): OnwardPlan => new OnwardPlan($goal, $this->planner->onward($job, $goal, $reading)),
            $goals,
        );
    }

    /** Once an install has begun there is only forward: takes the next route from where the device stands. */
    public function goOnward(
        BenchJob $job,
        Goal $goal,
        string $routeId,
        string $build,
        AcceptedLosses $accept,
        User $by,
    ): void {
        $this->acts->carryOut(
            Act::GoOnward,
            $job,
            $by,
            function () use ($job, $goal, $routeId, $build, $accept): void {
                $job->accept = $accept;
                $plan = $this->planner->onward($job, $goal, $this->reading($job));
                $route = PlanRoute::offered($plan, $routeId, $build);
                PlanRoute::assertAccepted($route, $accept, $job);
                // what was promised when the data left the device stands
                $standing = $job->standing_promise ?? $job->return()?->standing;
                $job->update([
                    'goal' => $goal,
                    'plan' => $plan,
                    'route' => $route,
                    'accept' => $accept,
                    'flag' => null,
                    'return_choice' => null,
                    'imports' => [],
                    'overlays' => [],
                    'standing_promise' => $standing,
                ]);
                $this->ledger->rewind($job, [StepCode::FetchPackage]); // first, so that nothing begins before it
                $this->ledger->layOutFromLine($job);
            },
            new Evidence([
                'goal' => GoalDocument::write($goal),
                'route' => $routeId,
                'build' => $build,
                'accept' => $accept->fields(),
            ]),
        );
    }

    /** A device that is not seen is planned for by what the rows know of it. */
    private function reading(BenchJob $job): ?DeviceReading
    {
        try {
            return $this->link->read($job->serial);
        } catch (LinkLost|Declined) {
            return null;
        }
    }
}
