<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Almanac\HeldAlmanac;
use App\Bench\Exception\Refusal;
use App\Bench\Journal;
use App\Bench\SituationOfJob;
use App\Bench\StepCode;
use App\Bench\StepState;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Exception\LinkLost;
use App\Ports\Exception\Refused;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Route\Planner;

/** After the line there is only forward: plans from where the device stands now, and takes the next route. */
final readonly class GoOnward
{
    public function __construct(private SituationOfJob $situation, private HeldAlmanac $almanac, private DeviceLink $link, private Journal $journal)
    {
    }

    /** Where a step past the line has failed and the device is not being written to. */
    public static function isOpenTo(BenchJob $job): bool
    {
        return $job->install_begun_at !== null
            && $job->steps->contains(static fn ($s): bool => $s->state === StepState::Failed && in_array($s->code, [StepCode::FetchPackage, StepCode::EnterRecovery, StepCode::Install, StepCode::Wake], true));
    }

    /**
     * The plan for the job's own goal, and where it is another, for the version that the device came from.
     *
     * @return list<array{goal: array<string, mixed>, plan: array<string, mixed>}>
     */
    public function plans(BenchJob $job): array
    {
        self::isOpenTo($job) || throw Refusal::notNow('The next route is asked for when a step past the erase line has failed.');
        $back = ['exact' => (string) ($job->device['version'] ?? '')];
        $reading = $this->reading($job);

        return array_map(fn (array $goal): array => ['goal' => $goal, 'plan' => $this->plan($job, $goal, $reading)], $job->goal === $back ? [$back] : [$job->goal ?? $back, $back]);
    }

    /**
     * @param  array<string, mixed>  $goal
     * @param  array{pairingLost: list<string>, appsUnavailable: list<string>}  $accept
     */
    public function take(BenchJob $job, array $goal, string $routeId, string $build, array $accept): void
    {
        self::isOpenTo($job) || throw Refusal::notNow('The next route is taken when a step past the erase line has failed.');
        $job->accept = $accept;
        $plan = $this->plan($job, $goal, $this->reading($job));
        $route = array_column($plan['routes'], null, 'id')[$routeId] ?? null;
        if ($route === null || $route['legs'][array_key_last($route['legs'])]['to']['build'] !== $build) {
            throw Refusal::routeGone();
        }
        AcceptRoute::assertAccepted($route['losses'], $accept);
        DB::transaction(function () use ($job, $goal, $plan, $route, $accept): void {
            $job->update(['goal' => $goal, 'plan' => $plan, 'route' => $route, 'accept' => $accept, 'flag' => null, 'return_choice' => null, 'imports' => null, 'overlays' => null]);
            $this->journal->rewind($job, [StepCode::FetchPackage]); // first, so that nothing begins before it
            $this->journal->layOut($job, StepCode::fromLineOn(count($route['legs']), $route['base'] !== null));
        });
    }

    /**
     * @param  array<string, mixed>  $goal
     * @return array<string, mixed> a plan document
     */
    private function plan(BenchJob $job, array $goal, ?DeviceReading $reading): array
    {
        return PlanDocument::of((new Planner($this->almanac->almanac()))->plan($this->situation->pastLine($job, $goal, $reading)));
    }

    /** A device that is not seen is planned for by what the journal knows of it. */
    private function reading(BenchJob $job): ?DeviceReading
    {
        try {
            return $this->link->read($job->serial);
        } catch (LinkLost|Refused) {
            return null;
        }
    }
}
