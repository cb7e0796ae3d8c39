<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\SideExportRecord;
use App\Ports\BagStore;
use App\Ports\DeviceReading;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Exchange\SituationDocument;
use JadeStep\Core\Route\Situation;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** Puts together what the planner needs to know of a job, as a situation document, and reads it back through its door. */
final readonly class SituationOfJob
{
    public function __construct(private BagStore $bags, private Rates $rates, private ClockInterface $clock)
    {
    }

    /** @param  array<string, mixed>|null  $goal the job's own where null */
    public function of(BenchJob $job, ?array $goal = null): Situation
    {
        return SituationDocument::parse(json_encode($this->document($job, $goal ?? $job->goal ?? []), JSON_THROW_ON_ERROR));
    }

    /**
     * Once the install has begun: no new backup can be taken, the job's own one is held, and what the device runs is what
     * it tells now.
     *
     * @param  array<string, mixed>  $goal
     */
    public function pastLine(BenchJob $job, array $goal, ?DeviceReading $now): Situation
    {
        $document = $this->document($job, $goal);
        $document['planned'] = ['backup' => 'none', 'sideExports' => []];
        $own = $job->safetyBag();
        $document['backups'] = [...$document['backups'], ...($own === null ? [] : [self::bag($own)])];
        $live = $now === null ? [] : array_intersect_key($now->facts, array_flip(['version', 'build', 'rollbackCounter', 'batteryPercent', 'charging']));
        // where nothing of it is known it is taken for the worse
        $document['device'] = ['dataOnDevice' => $job->erase_begun_at === null, 'bootable' => $now === null ? $job->erase_begun_at === null : $now->bootable] + $live + $document['device'];

        return SituationDocument::parse(json_encode($document, JSON_THROW_ON_ERROR));
    }

    /**
     * @param  array<string, mixed>  $goal
     * @return array<string, mixed> a situation document
     */
    public function document(BenchJob $job, array $goal): array
    {
        return [
            'format' => 'jade-step/situation', 'formatVersion' => 1,
            'now' => Rfc3339::format($this->clock->now()),
            'device' => $this->device($job),
            'backups' => [...$this->bagsOf($job), ...$this->cloudOf($job)],
            'sideExports' => $this->exportsOf($job),
            'planned' => ['backup' => $job->backup['encryption'] ?? 'plain', 'sideExports' => $job->backup['sideExports'] ?? []],
            'bench' => [
                'linkBytesPerSecond' => config('jade.rates.link'), 'backupBytesPerSecond' => config('jade.rates.backup'),
                'returnBytesPerSecond' => config('jade.rates.return'), 'hostAgent' => config('jade.host_agent'),
                'freeDiskBytes' => $this->bags->freeBytes(), 'measured' => (object) $this->rates->of($job->bench_id),
            ],
            'goal' => $goal,
            'accept' => $job->accept ?? ['pairingLost' => [], 'appsUnavailable' => []],
        ];
    }

    /**
     * The device as it was read, with what was attested of kinds that sync where the device does not tell.
     *
     * @return array<string, mixed>|null
     */
    private function device(BenchJob $job): ?array
    {
        $device = $job->device;
        foreach ($device === null ? [] : array_keys($device['kinds']) as $i) {
            $device['kinds'][$i]['syncedAt'] ??= $job->cloud['syncs'][$device['kinds'][$i]['kind']] ?? null;
        }

        return $device;
    }

    /**
     * The verified bags of this device that are on the shelf; those of this job are the planned one, lowered copies are none.
     *
     * @return list<array<string, mixed>>
     */
    private function bagsOf(BenchJob $job): array
    {
        $bags = Bag::query()->where('serial', $job->serial)->where('lowered_from', null)->get()
            ->filter(fn (Bag $b): bool => $b->bench_job_id !== $job->id && $b->state->proven() && $this->bags->has($b->id));

        return array_values($bags->map(self::bag(...))->all());
    }

    /** @return array<string, mixed> a backup of a situation document */
    public static function bag(Bag $b): array
    {
        return [
            'id' => $b->id, 'where' => 'bag', 'takenAt' => Rfc3339::format($b->taken_at->toDateTimeImmutable()), 'madeOn' => $b->made_on, 'declaredVersion' => $b->declared_version,
            'encrypted' => $b->encryption === Encryption::OpenPgp, 'passphraseProven' => $b->passphrase_proven_at !== null, 'verified' => $b->state->proven(),
            'kinds' => $b->kinds ?? array_keys($b->counts ?? []), 'storeSchemas' => (object) ($b->store_schemas ?? []),
        ];
    }

    /** @return list<array<string, mixed>> */
    private function cloudOf(BenchJob $job): array
    {
        $cloud = $job->cloud['backup'] ?? null;

        return $cloud === null ? [] : [[
            'id' => 'cloud', 'where' => 'cloud', 'takenAt' => $cloud['takenAt'], 'madeOn' => $cloud['madeOn'], 'declaredVersion' => $cloud['madeOn'],
            'encrypted' => false, 'passphraseProven' => false, 'verified' => false, 'kinds' => $cloud['kinds'],
        ]];
    }

    /** @return list<array<string, string>> the latest of each kind */
    private function exportsOf(BenchJob $job): array
    {
        $latest = SideExportRecord::query()->where('serial', $job->serial)->oldest('taken_at')->get()->keyBy('kind');

        return array_values($latest->map(static fn (SideExportRecord $r): array => ['kind' => $r->kind, 'takenAt' => Rfc3339::format($r->taken_at->toDateTimeImmutable())])->all());
    }
}
