<?php

declare(strict_types=1);

namespace App\Batches;

use App\Almanac\HeldAlmanac;
use App\Facts\SituationOfJob;
use App\Models\Batch;
use App\Models\BenchJob;
use App\Models\HeldPackage;
use App\Models\JobStep;
use App\Models\PackageState;
use App\Ports\BagStore;
use App\Shop\Shop;
use JadeStep\Core\Batch\Asked;
use JadeStep\Core\Batch\Batch as CoreBatch;
use JadeStep\Core\Batch\BatchDevice;
use JadeStep\Core\Batch\PackageFetch;
use JadeStep\Core\Batch\RouteSteps;
use JadeStep\Core\Batch\ShopPlan;
use JadeStep\Core\Batch\Simulation;
use JadeStep\Core\Batch\Unplanned;
use JadeStep\Core\Copied;
use JadeStep\Core\Exchange\ScheduleDocument;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\StepAt;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Route\Planner;
use Psr\Clock\ClockInterface;

/** Makes the core's batch of the jobs of one: what is left of each, on the way that it has taken or would take. */
final readonly class BatchOfJobs
{
    private const SEED = 1;

    public function __construct(
        private SituationOfJob $situation,
        private HeldAlmanac $almanac,
        private AssumedContent $assumed,
        private PortsOfBatch $ports,
        private BagStore $bags,
        private ClockInterface $clock,
    ) {
    }

    /** @param  ShopPlan|null  $shop  in the place of the batch's own */
    public function ask(
        Batch $batch,
        ?ShopPlan $shop = null,
        ?\DateTimeImmutable $startsAt = null,
        ?\DateTimeImmutable $deadline = null,
    ): Asked {
        $begins = max($startsAt ?? $batch->starts_at->toDateTimeImmutable(), $this->clock->now());
        $jobs = array_values($batch->jobs()->where('state', JobState::Open)->with('steps')->get()->all());
        $places = $this->ports->of($jobs, ($shop ?? $batch->workshop)->ports);
        $planner = new Planner($this->almanac->almanac());
        [$devices, $unplanned, $fetches] = [[], [], []];
        foreach ($jobs as $job) {
            $one = $this->device($job, $planner, $begins, $places[$job->id] ?? null, $fetches);
            $one instanceof BatchDevice ? $devices[] = $one : $unplanned[] = $one;
        }

        return new Asked(
            new CoreBatch(
                $begins,
                $deadline ?? $batch->deadline?->toDateTimeImmutable(),
                ($shop ?? $batch->workshop)->workshop(new \DateTimeZone(Shop::read()->timeZone)),
                $devices,
                array_values(array_diff_key($fetches, array_flip(self::packagesHere(array_keys($fetches))))),
                $this->bags->freeBytes(),
            ),
            $unplanned,
            self::SEED,
            Simulation::USUAL_DRAWS,
            $batch->schedule === null ? null : ScheduleDocument::order($batch->schedule),
        );
    }

    /** @param  array<string, PackageFetch>  $fetches  gets what its routes need, by SHA-256 */
    private function device(
        BenchJob $job,
        Planner $planner,
        \DateTimeImmutable $begins,
        ?int $port,
        array &$fetches,
    ): BatchDevice|Unplanned {
        $label = $job->variant ?? $job->device->modelName ?? $job->serial;
        if ($job->device === null || $job->goal === null) {
            return new Unplanned((string) $job->id, $label, 'It has not been read yet, and nothing is told of it.');
        }
        $told = $this->situation->of($job, $job->goal);
        $situation = Copied::with($told, startsAt: $begins, device: $this->assumed->of($job, $told->device));
        $routes = $job->route === null ? $planner->plan($situation)->routes : [$job->route];
        if ($routes === []) {
            return new Unplanned((string) $job->id, $label, 'No route leads to its goal now.');
        }
        foreach ($routes as $route) {
            $fetches += RouteSteps::fetches($situation, $route);
        }

        [$done, $running] = $this->progress($job);

        return RouteSteps::device((string) $job->id, $label, $situation, $routes, $port, $done, $running);
    }

    /** @return array{list<StepAt>, array<string, float>} what is behind it, and for how many minutes what runs does */
    private function progress(BenchJob $job): array
    {
        $now = $this->clock->now();
        [$done, $running] = [[], []];
        foreach ($job->steps as $step) {
            if ($step->state === StepState::Done) {
                $done[] = $step->at();
            } elseif ($step->state === StepState::Running && $step->started_at !== null) {
                $running[RouteSteps::name($step->at())] = self::minutesSince($step, $now);
            }
        }

        return [$done, $running];
    }

    private static function minutesSince(JobStep $step, \DateTimeImmutable $now): float
    {
        return max(0, $now->getTimestamp() - ($step->started_at?->getTimestamp() ?? 0)) / 60;
    }

    /**
     * @param  list<string>  $wanted
     * @return list<string> those of them that lie here, whole
     */
    private static function packagesHere(array $wanted): array
    {
        return array_values(
            HeldPackage::query()
                ->whereIn('sha256', $wanted)
                ->where('state', PackageState::Whole)
                ->get()
                ->map(static fn (HeldPackage $p): string => $p->sha256)
                ->all(),
        );
    }
}
