<?php

declare(strict_types=1);

namespace App\Facts;

use App\Benches\Rates;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\SideExportRecord;
use App\Ports\BagStore;
use App\Ports\DeviceReading;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\KindStock;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\Record\AcceptedLosses;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Route\HeldBackup;
use JadeStep\Core\Route\KnownStock;
use JadeStep\Core\Route\PlannedBackup;
use JadeStep\Core\Route\Situation;
use Psr\Clock\ClockInterface;

/** Puts together what the planner needs to know of a job. */
final readonly class SituationOfJob
{
    public function __construct(private BagStore $bags, private Rates $rates, private ClockInterface $clock)
    {
    }

    public function of(BenchJob $job, Goal $goal): Situation
    {
        $choice = $job->backupChoice();
        $accept = $job->accept ?? AcceptedLosses::none();

        return new Situation(
            $this->clock->now(),
            $this->device($job),
            [...$this->bagsOf($job), ...self::cloudOf($job)],
            self::exportsOf($job),
            $choice->encryption,
            $choice->sideExports,
            $this->rates->figures($job->bench_id, $this->bags->freeBytes()),
            $goal,
            $accept->pairingLost,
            $accept->appsUnavailable,
        );
    }

    /**
     * Once the install has begun: no new backup can be taken, the job's own one is held, and what the device runs is
     * what it tells now.
     */
    public function pastLine(BenchJob $job, Goal $goal, ?DeviceReading $now): Situation
    {
        $own = $job->safetyBag();
        $so = $this->of($job, $goal);
        $device = $so->device->past($now?->device, $job->erase_begun_at === null);

        return new Situation(
            $so->now,
            $device,
            [...$so->backups, ...$own === null ? [] : [$own->held()]],
            $so->sideExports,
            PlannedBackup::None,
            [],
            $so->bench,
            $goal,
            $so->acceptedPairingLost,
            $so->acceptedAppsUnavailable,
        );
    }

    /** The device as it was read, with what was told of kinds that sync where the device does not tell. */
    private function device(BenchJob $job): Device
    {
        $device = $job->intent === Intent::ReturnOnly
            ? $job->readDevice()->holding($this->knownOf($job))
            : $job->readDevice()->withoutEmptyKinds();
        $told = static fn (KindStock $s): KindStock => new KindStock(
            $s->kind, $s->items, $s->bytes, $s->lastChangedAt, $s->syncedAt ?? $job->cloud?->syncedAt($s->kind),
        );

        return $device->holding(array_map($told, $device->kinds));
    }

    /**
     * The verified bags of this device that are on the shelf; the job's own is the planned one, lowered copies are
     * none.
     *
     * @return list<HeldBackup>
     */
    private function bagsOf(BenchJob $job): array
    {
        $bags = Bag::originals()
            ->where('serial', $job->serial)
            ->get()
            ->filter(
                fn (Bag $b): bool => $b->bench_job_id !== $job->id && $b->state->proven() && $this->bags->has($b->id),
            );

        return array_values($bags->map(static fn (Bag $b): HeldBackup => $b->held())->all());
    }

    /** @return list<KindStock> what its backups tell of a device that was erased elsewhere */
    private function knownOf(BenchJob $job): array
    {
        $bags = Bag::wholes()
            ->where('serial', $job->serial)
            ->get()
            ->filter(static fn (Bag $b): bool => $b->state->proven());
        $cloud = array_map(static fn (HeldBackup $b): array => [$b, []], self::cloudOf($job));

        return KnownStock::of([
            ...array_values($bags->map(static fn (Bag $b): array => [$b->held(), $b->counts ?? []])->all()),
            ...$cloud,
        ]);
    }

    /** @return list<HeldBackup> */
    private static function cloudOf(BenchJob $job): array
    {
        $backup = $job->cloud?->backup;

        return $backup === null ? [] : [$backup->held()];
    }

    /** @return array<string, \DateTimeImmutable> the latest of each kind, by its code */
    private static function exportsOf(BenchJob $job): array
    {
        $latest = [];
        foreach (SideExportRecord::query()->where('serial', $job->serial)->oldest('taken_at')->get() as $record) {
            $latest[$record->kind] = $record->taken_at->toDateTimeImmutable();
        }

        return $latest;
    }
}
