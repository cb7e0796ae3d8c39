<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Route\BenchFigures;
use JadeStep\Core\Route\HeldBackup;
use JadeStep\Core\Route\PlannedBackup;
use JadeStep\Core\Route\Rate;
use JadeStep\Core\Route\Situation;
use JadeStep\Core\Time\Rfc3339;

/** Reads `jade-step/situation` documents. */
final class SituationDocument
{
    /** @throws InvalidDocument */
    public static function parse(string $json): Situation
    {
        return self::read(Fields::ofChecked(Format::Situation, Gate::parse(Format::Situation, $json)));
    }

    /** @throws InvalidDocument */
    public static function fromPayload(\stdClass $payload): Situation
    {
        return self::read(Fields::ofChecked(Format::Situation, Gate::check(Format::Situation, $payload)));
    }

    private static function read(Fields $d): Situation
    {
        $planned = $d->in('planned');
        $accept = $d->in('accept');
        $exports = $d->each('sideExports', static fn (Fields $e): array => [$e->string('kind'), $e->time('takenAt')]);

        return new Situation(
            $d->time('now'),
            DeviceDocument::read($d->in('device')),
            $d->each('backups', self::readBackup(...)),
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
            'id' => $b->id,
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

    private static function readBackup(Fields $b): HeldBackup
    {
        return new HeldBackup(
            $b->string('id'),
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
        return $s === null ? null : Rate::of($s->float('low'), $s->float('likely'), $s->float('high'));
    }
}
