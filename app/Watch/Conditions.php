<?php

declare(strict_types=1);

namespace App\Watch;

use App\Facts\JobFacts;
use App\Models\AlmanacChange;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\KeyState;
use App\Models\SecondCopy;
use App\Models\VendorKey;
use App\Shelf\ShelfSpaces;
use JadeStep\Core\Almanac\ChangeCode;
use JadeStep\Core\Amount;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Job\Job;
use JadeStep\Core\Watch\Alarm;
use Psr\Clock\ClockInterface;

/** Looks for all that holds at this moment of what people may be told of. */
final readonly class Conditions
{
    /** Of which a lead is told before the date of a sealed copy. */
    private const DATE_NEAR_DAYS = 14;

    /** How long a change of the almanac is news. */
    private const NEWS_HOURS = 24;

    /** So often in a row the second place has not taken a copy. */
    private const TRIES = 3;

    private const TOLD_AT_ONCE = 200;

    private const LITTLE_DAYS = 7.0;

    public function __construct(
        private JobFacts $facts,
        private ShelfSpaces $spaces,
        private Disk $disk,
        private OwnBackups $own,
        private ClockInterface $clock,
    ) {
    }

    /** @return list<Condition> */
    public function now(): array
    {
        $jobs = array_values(BenchJob::openWithAll());

        return [
            ...$this->ofJobs($jobs),
            ...$this->windows($jobs),
            ...$this->disk(),
            ...$this->keys(),
            ...$this->bags(),
            ...$this->secondPlace(),
            ...$this->ownBackup(),
        ];
    }

    /**
     * @param  list<BenchJob>  $jobs
     * @return list<Condition>
     */
    private function ofJobs(array $jobs): array
    {
        $found = [];
        foreach ($jobs as $job) {
            $model = $this->facts->job($job);
            $now = $model->now();
            if ($now->isWanted()) {
                $found[] = new Condition(
                    $job->nightly ? Alarm::NightFailed : Alarm::HandWanted,
                    "job {$job->id} {$now->what} ".($now->since?->getTimestamp() ?? ''),
                    self::named($job).": {$now->what}",
                    $now->why,
                    self::page($job, $model),
                    $now->since,
                );
            }
        }

        return $found;
    }

    /**
     * @param  list<BenchJob>  $jobs
     * @return list<Condition>
     */
    private function windows(array $jobs): array
    {
        $found = [];
        $news = AlmanacChange::query()
            ->whereIn(
                'code',
                [ChangeCode::EndAnnounced->value, ChangeCode::EndMoved->value, ChangeCode::WindowClosed->value],
            )
            ->where('noticed_at', '>=', $this->clock->now()->modify('-'.self::NEWS_HOURS.' hours'))
            ->get();
        foreach ($news as $change) {
            $touched = array_filter(
                $jobs,
                static fn (BenchJob $j): bool => $j->line_crossed_at === null
                    && in_array($j->device?->hardwareId, $change->hardware_ids, true),
            );
            $numbers = implode(', ', array_map(static fn (BenchJob $j): int => $j->id, $touched));
            if ($touched !== []) {
                $found[] = new Condition(
                    Alarm::WindowEnds,
                    "change {$change->id}",
                    $change->words,
                    "Open jobs on this model: {$numbers}.",
                    '/almanac',
                    $change->noticed_at->toDateTimeImmutable(),
                );
            }
        }

        return $found;
    }

    /** @return list<Condition> */
    private function disk(): array
    {
        $space = $this->spaces->space();
        $share = $this->disk->shareFree();
        $little = $this->disk->isNearlyFull() || ($space->daysLeft !== null && $space->daysLeft < self::LITTLE_DAYS);
        $left = $space->daysLeft === null ? null : max(1, (int) $space->daysLeft);
        $days = $left === null ? '' : " At the rate of late that lasts {$left} days.";

        return $little ? [new Condition(
            Alarm::DiskFills,
            'bags',
            round($share * 100).' % of the disk for backups is left',
            Amount::there($space->free)." are left where backups lie.{$days}",
            '/settings?at=storage',
        )] : [];
    }

    /** @return list<Condition> */
    private function keys(): array
    {
        return array_values(VendorKey::query()->where('state', KeyState::Offered)->get()->map(
            static fn (VendorKey $key): Condition => new Condition(
                Alarm::KeyOffered,
                "key {$key->id}",
                "{$key->vendor_id} offers a new key",
                "Its thumbprint (RFC 7638) is {$key->thumbprint}.",
                '/settings?at=vendors',
            ),
        )->all());
    }

    /** @return list<Condition> */
    private function bags(): array
    {
        $near = $this->clock->now()->modify('+'.self::DATE_NEAR_DAYS.' days');
        $dated = Bag::query()->withoutGlobalScope('in-order')
            ->where('state', BagState::Sealed)
            ->where('keep_until', '<', $near)
            ->oldest('keep_until')
            ->limit(self::TOLD_AT_ONCE)
            ->get();
        $damaged = Bag::query()->where('state', BagState::Damaged)->limit(self::TOLD_AT_ONCE)->get();

        return [
            ...array_values($dated->map(static fn (Bag $bag): Condition => new Condition(
                Alarm::DateNear,
                "bag {$bag->id} {$bag->keep_until?->getTimestamp()}",
                "A sealed copy is kept until {$bag->keep_until?->format('Y-m-d')}",
                'It was taken '.$bag->taken_at->format('Y-m-d').'.',
                '/shelf/'.rawurlencode($bag->id),
            ))->all()),
            ...array_values($damaged->map(static fn (Bag $bag): Condition => new Condition(
                Alarm::BagDamaged,
                "bag {$bag->id}",
                'A backup of '.$bag->taken_at->format('Y-m-d').' was found damaged',
                count($bag->faults).' faults were found in it.',
                '/shelf/'.rawurlencode($bag->id),
            ))->all()),
        ];
    }

    /** @return list<Condition> */
    private function secondPlace(): array
    {
        $worst = SecondCopy::query()->where('tries', '>=', self::TRIES)->latest('tries')->first();

        return $worst?->problem === null ? [] : [new Condition(
            Alarm::SecondPlaceFails,
            $worst->problem->reason,
            'The second place does not take copies',
            $worst->problem->detail,
            '/settings?at=second-place',
        )];
    }

    /** @return list<Condition> */
    private function ownBackup(): array
    {
        $old = $this->own->isOld();

        return $old === null ? [] : [
            new Condition(Alarm::OwnBackupOld, 'own backup', 'The own backup is old', $old, '/settings?at=watching'),
        ];
    }

    private static function named(BenchJob $job): string
    {
        return "Job {$job->id}, ".($job->device->modelName ?? 'a device');
    }

    private static function page(BenchJob $job, Job $model): string
    {
        return "/jobs/{$job->id}/{$model->position()->stage()->value}";
    }
}
