<?php

declare(strict_types=1);

namespace App\Acts;

use App\Facts\JobPlanner;
use App\Journal\Evidence;
use App\Ledger\StepLedger;
use App\Models\BenchJob;
use App\Models\HeldCatalogue;
use App\Models\User;
use App\Refusal\Refusal;
use App\Steps\ReturnToChoose;
use JadeStep\Core\Exchange\GoalDocument;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\Record\AcceptedLosses;
use JadeStep\Core\Job\Record\AcceptedPlan;
use JadeStep\Core\Job\Record\CatalogueIssue;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Route\Plan;
use JadeStep\Core\Route\Route;
use Psr\Clock\ClockInterface;

/** Sets the goal, takes a route with what it costs accepted by name, or goes back to choose another one. */
final readonly class PlanRoute
{
    public function __construct(
        private JobActs $acts,
        private JobPlanner $planner,
        private StepLedger $ledger,
        private ReturnToChoose $back,
        private ClockInterface $clock,
    ) {
    }

    public function setGoal(BenchJob $job, Goal $goal, User $by): void
    {
        $this->acts->carryOut(Act::Plan, $job, $by, fn () => $this->planner->keep($job, $goal), new Evidence([
            'goal' => GoalDocument::write($goal),
        ]));
    }

    public function seeChanges(BenchJob $job, User $by): void
    {
        $this->acts->carryOut(Act::SeeChanges, $job, $by, static fn () => $job->update(['flag' => null]));
    }

    /**
     * @param  string  $build  the build that the technician saw the route end on
     * @param  bool  $lookFirst  whether the device stays as new after the install until somebody goes on
     */
    public function acceptRoute(
        BenchJob $job,
        string $routeId,
        string $build,
        AcceptedLosses $accept,
        bool $lookFirst,
        User $by,
    ): void {
        $this->acts->carryOut(
            Act::AcceptRoute,
            $job,
            $by,
            function () use ($job, $routeId, $build, $accept, $lookFirst, $by): void {
                $job->accept = $accept;
                $this->planner->keep($job, $job->goal ?? throw Refusal::routeGone());
                $plan = $job->plan ?? throw Refusal::routeGone();
                $route = self::offered($plan, $routeId, $build);
                self::assertAccepted($route, $accept, $job);
                ! $lookFirst
                    || $route->hasReturn()
                    || throw Refusal::notNow(
                        'On this route the data stays on the device: there is nothing to look at first.',
                    );
                $up = $route->end()->version->isAbove($job->readDevice()->version);
                $job->update([
                    'route' => $route,
                    'accept' => $accept,
                    'accepted' => $this->whole($job, $plan, $by),
                    'flag' => null,
                    'return_choice' => null,
                    'return_held' => $lookFirst,
                    'intent' => $up ? Intent::TakeUp : Intent::TakeDown,
                ]);
                $this->ledger->layOutFromLine($job);
                $this->ledger->doneByHand($job->step(StepCode::ChooseRoute));
            },
            new Evidence([
                'route' => $routeId,
                'build' => $build,
                'accept' => $accept->fields(),
                'look first' => $lookFirst,
            ]),
        );
    }

    public function chooseAgain(BenchJob $job, User $by): void
    {
        $this->acts->carryOut(Act::ChooseAgain, $job, $by, fn () => $this->back->take($job, null));
    }

    public static function offered(Plan $plan, string $routeId, string $build): Route
    {
        $route = $plan->route($routeId);

        return $route !== null && $route->end()->build === $build ? $route : throw Refusal::routeGone();
    }

    public static function assertAccepted(Route $route, AcceptedLosses $accept, BenchJob $job): void
    {
        $open = $route->losses->notAccepted($accept, $job->readDevice());
        $open === [] || throw Refusal::notAccepted($open);
    }

    /** The plan as it was accepted, with the issue of the catalogue that it rests on. */
    private function whole(BenchJob $job, Plan $plan, User $by): AcceptedPlan
    {
        $held = HeldCatalogue::query()->find($job->catalogue_id);
        $issue =
            $held === null
                ? null
                : new CatalogueIssue($held->vendor, $held->issued_at->toDateTimeImmutable(), $held->vouched);

        return new AcceptedPlan($plan, $issue, $this->clock->now(), $by->name);
    }
}
