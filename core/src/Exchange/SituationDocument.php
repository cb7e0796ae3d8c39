<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Route\BaseUse;
use JadeStep\Core\Route\BenchFigures;
use JadeStep\Core\Route\HeldBackup;
use JadeStep\Core\Route\PlannedBackup;
use JadeStep\Core\Route\Rate;
use JadeStep\Core\Route\Situation;
use JadeStep\Core\Time\Rfc3339;

/** Reads `jade-step/situation` documents. */
final class SituationDocument
{
    /** How a backup of the owner's cloud is called in a document, where the planner's own name is kept from others. */
    private const CLOUD = 'in-the-cloud';

    /** @throws InvalidDocument */
    public static function parse(string $json): Situation
    {
        return self::readIn(Fields::ofChecked(Format::Situation, Gate::parse(Format::Situation, $json)));
    }

    /** A situation within a document that has passed the Gate as a whole. */
    public static function readIn(Fields $d): Situation
    {
        $planned = $d->in('planned');
        $accept = $d->in('accept');
        $device = $d->in('device');
        self::assertOnce($device, 'kinds', 'kind', $device->each('kinds', static fn (Fields $k) => $k->string('kind')));
        $exports = $d->each('sideExports', static fn (Fields $e): array => [$e->string('kind'), $e->time('takenAt')]);
        self::assertOnce($d, 'sideExports', 'kind', array_column($exports, 0));
        $backups = $d->each('backups', self::readBackup(...));
        self::assertOnce($d, 'backups', 'id', array_map(static fn (HeldBackup $b): string => $b->id, $backups));

        return new Situation(
            $d->time('now'),
            DeviceDocument::read($device),
            $backups,
            array_column($exports, 1, 0),
            $planned->enum('backup', PlannedBackup::class),
            $planned->enums('sideExports', Kind::class),
            self::readBench($d->in('bench')),
            GoalDocument::read($d->in('goal')),
            $accept->strings('pairingLost'),
            $accept->strings('appsUnavailable'),
            $d->maybeTime('startsAt'),
        );
    }

    /** @return array<string, mixed> ready for json_encode */
    public static function write(Situation $s): array
    {
        return [
            'format' => Format::Situation->name(), 'formatVersion' => 1, 'now' => Rfc3339::format($s->now),
            'device' => DeviceDocument::write($s->device),
            'backups' => array_map(self::writeBackup(...), $s->backups),
            'sideExports' => array_map(
                static fn (string $kind, \DateTimeImmutable $at): array => [
                    'kind' => $kind,
                    'takenAt' => Rfc3339::format($at),
                ],
                array_keys($s->sideExports),
                $s->sideExports,
            ),
            'planned' => [
                'backup' => $s->plannedBackup->value,
                'sideExports' => array_column($s->plannedSideExports, 'value'),
            ],
            'bench' => self::writeBench($s->bench),
            'goal' => GoalDocument::write($s->goal),
            'accept' => ['pairingLost' => $s->acceptedPairingLost, 'appsUnavailable' => $s->acceptedAppsUnavailable],
        ] + ($s->startsAt === null ? [] : ['startsAt' => Rfc3339::format($s->startsAt)]);
    }

    /** @return array<string, mixed> */
    private static function writeBackup(HeldBackup $b): array
    {
        return [
            'id' => $b->id === BaseUse::CLOUD ? self::CLOUD : $b->id,
            'where' => $b->inCloud ? 'cloud' : 'bag',
            'takenAt' => Rfc3339::format($b->takenAt),
            'madeOn' => (string) $b->madeOn,
            'declaredVersion' => (string) $b->declaredVersion,
            'encrypted' => $b->encrypted,
            'passphraseProven' => $b->passphraseProven,
            'verified' => $b->verified,
            'kinds' => array_column($b->kinds, 'value'),
            'storeSchemas' => (object) $b->storeSchemas,
        ];
    }

    /** @return array<string, mixed> */
    private static function writeBench(BenchFigures $b): array
    {
        return [
            'linkBytesPerSecond' => $b->link->likely,
            'backupBytesPerSecond' => $b->backup->likely,
            'returnBytesPerSecond' => $b->return->likely,
            'hostAgent' => $b->hostAgent?->label(),
            'freeDiskBytes' => $b->freeDiskBytes,
            'measured' => [
                'linkBytesPerSecond' => $b->link->points(),
                'backupBytesPerSecond' => $b->backup->points(),
                'returnBytesPerSecond' => $b->return->points(),
            ] + ($b->installMinutes === null ? [] : ['installMinutes' => $b->installMinutes->points()]),
        ];
    }

    /**
     * @param  list<string>  $values  in the order of the list's entries
     *
     * @throws InvalidDocument where one stands twice
     */
    private static function assertOnce(Fields $d, string $list, string $field, array $values): void
    {
        $twice = array_diff_key($values, array_unique($values));
        if ($twice !== []) {
            throw $d->fault("{$list}/".array_key_first($twice)."/{$field}", 'stands twice: name each once');
        }
    }

    private static function readBackup(Fields $b): HeldBackup
    {
        $id = $b->string('id');
        if (in_array($id, [BaseUse::PLANNED, BaseUse::CLOUD], true)) {
            throw $b->fault('id', "\"{$id}\" is the planner's own: give the backup another id");
        }

        return new HeldBackup(
            $id,
            $b->string('where') === 'cloud',
            $b->time('takenAt'),
            $b->version('madeOn'),
            $b->version('declaredVersion'),
            $b->bool('encrypted'),
            $b->bool('passphraseProven'),
            $b->bool('verified'),
            $b->enums('kinds', Kind::class),
            $b->ints('storeSchemas'),
        );
    }

    private static function readBench(Fields $b): BenchFigures
    {
        $own = $b->maybeIn('measured');
        $rate = static fn (string $field): Rate => self::spread($own?->maybeIn($field))
            ?? Rate::usual($b->float($field));

        return new BenchFigures(
            $rate('linkBytesPerSecond'),
            $rate('backupBytesPerSecond'),
            $rate('returnBytesPerSecond'),
            self::spread($own?->maybeIn('installMinutes')),
            $b->maybeVersion('hostAgent'),
            $b->int('freeDiskBytes'),
        );
    }

    private static function spread(?Fields $s): ?Rate
    {
        if ($s === null) {
            return null;
        }
        [$low, $likely, $high] = [$s->float('low'), $s->float('likely'), $s->float('high')];

        return $low <= $likely && $likely <= $high
            ? Rate::of($low, $likely, $high)
            : throw $s->fault('likely', 'expected low, likely and high in this order, none above the next');
    }
}
