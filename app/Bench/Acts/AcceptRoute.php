<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\Exception\Refusal;
use App\Bench\Journal;
use App\Bench\StepCode;
use App\Models\BenchJob;
use Illuminate\Support\Facades\DB;

/** Takes a route of the plan, as it stands at this moment, with what it costs accepted by name. */
final readonly class AcceptRoute
{
    public function __construct(private PlanJob $plan, private Journal $journal)
    {
    }

    /**
     * @param  string  $build  the build that the technician saw the route end on
     * @param  array{pairingLost: list<string>, appsUnavailable: list<string>}  $accept
     */
    public function of(BenchJob $job, string $routeId, string $build, array $accept): void
    {
        DB::transaction(function () use ($job, $routeId, $build, $accept): void {
            $job->accept = $accept;
            $this->plan->for($job, $job->goal ?? throw Refusal::routeGone());
            $route = array_column($job->plan['routes'] ?? [], null, 'id')[$routeId] ?? null;
            if ($route === null || $route['legs'][0]['to']['build'] !== $build) {
                throw Refusal::routeGone();
            }
            self::assertCanBeTaken($route);
            $this->assertAccepted($route['losses'], $accept);
            $job->update(['route' => $route, 'accept' => $accept]);
            $this->journal->doneByHand($job->step(StepCode::ChooseRoute));
        });
    }

    /**
     * The bench walks one erase install with the new backup put back; other routes are planned but not walked yet.
     *
     * @param  array<string, mixed>  $route
     */
    private static function assertCanBeTaken(array $route): void
    {
        if (count($route['legs']) !== 1 || $route['erases'] !== 1 || ($route['base']['backup'] ?? null) !== 'planned') {
            throw Refusal::notNow('This route is planned, but this bench cannot walk it yet: take one that erases once and puts the new backup back.');
        }
    }

    /**
     * @param  array<string, list<string>>  $losses
     * @param  array<string, list<string>>  $accept
     */
    private function assertAccepted(array $losses, array $accept): void
    {
        $open = [
            ...array_diff($losses['pairingLost'], $accept['pairingLost']),
            ...array_diff($losses['appsUnavailable'], $accept['appsUnavailable']),
        ];
        if ($open !== []) {
            throw Refusal::notAccepted(array_values($open));
        }
    }
}
