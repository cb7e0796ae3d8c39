<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Device\Accessory;
use JadeStep\Core\Device\App;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\KindStock;
use JadeStep\Core\Device\OwnerLock;
use JadeStep\Core\Device\Question;
use JadeStep\Core\Device\Unresolved;
use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Exchange\Internal\Reader;
use JadeStep\Core\Route\BenchFigures;
use JadeStep\Core\Route\Goal;
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
        return self::read(Gate::parse(Format::Situation, $json));
    }

    /** @throws InvalidDocument */
    public static function fromPayload(\stdClass $payload): Situation
    {
        return self::read(Gate::check(Format::Situation, $payload));
    }

    private static function read(\stdClass $d): Situation
    {
        $r = new Reader(Format::Situation->value);
        $exports = [];
        foreach ($d->sideExports as $i => $export) {
            $exports[$export->kind] = $r->time($export->takenAt, "/sideExports/{$i}/takenAt");
        }

        return new Situation(
            $r->time($d->now, '/now'),
            self::device($d->device, $r),
            $r->each($d->backups, '/backups', static fn (\stdClass $b, string $at): HeldBackup => self::backup($b, $at, $r)),
            $exports,
            PlannedBackup::from($d->planned->backup),
            array_map(Kind::from(...), $d->planned->sideExports),
            self::bench($d->bench, $r),
            self::goal($d->goal, $r),
            $d->accept->pairingLost,
            $d->accept->appsUnavailable,
            $r->maybe($d->startsAt ?? null, '/startsAt', $r->time(...)),
        );
    }

    private static function device(\stdClass $d, Reader $r): Device
    {
        return new Device(
            $d->serial, $d->hardwareId, $d->modelName, $d->osLine,
            $r->version($d->version, '/device/version'), $d->build,
            $d->rollbackCounter, $d->radioMinimum, $d->capacityBytes, $d->freeBytes,
            $d->batteryPercent, $d->charging, $d->paired,
            $d->ownerLock === null ? null : OwnerLock::from($d->ownerLock),
            $d->lockDelay === null ? null : OwnerLock::from($d->lockDelay),
            $r->maybe($d->lockDelayEndsAt, '/device/lockDelayEndsAt', $r->time(...)),
            $d->ownerAccountAtHand, $d->passcodeKnown, $d->betaEnrolled,
            $r->each($d->accessories, '/device/accessories', static fn (\stdClass $a, string $at): Accessory => new Accessory(
                $a->id, $a->type, $r->version($a->osVersion, "{$at}/osVersion"),
            )),
            $r->each($d->apps, '/device/apps', static fn (\stdClass $a, string $at): App => new App(
                $a->id, $a->name, $r->version($a->minimumOs, "{$at}/minimumOs"),
            )),
            $r->each($d->kinds, '/device/kinds', static fn (\stdClass $k, string $at): KindStock => new KindStock(
                Kind::from($k->kind), $k->items, $k->bytes,
                $r->maybe($k->lastChangedAt, "{$at}/lastChangedAt", $r->time(...)),
                $r->maybe($k->syncedAt, "{$at}/syncedAt", $r->time(...)),
            )),
            isset($d->identity) ? new Unresolved($d->identity->candidates, array_map(Question::from(...), $d->identity->answered)) : Unresolved::byName(),
            $d->dataOnDevice ?? true, $d->bootable ?? true,
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
                static fn (string $kind, \DateTimeImmutable $at): array => ['kind' => $kind, 'takenAt' => Rfc3339::format($at)],
                array_keys($s->sideExports), $s->sideExports,
            ),
            'planned' => ['backup' => $s->plannedBackup->value, 'sideExports' => array_column($s->plannedSideExports, 'value')],
            'bench' => self::writeBench($s->bench), 'goal' => GoalDocument::write($s->goal),
            'accept' => ['pairingLost' => $s->acceptedPairingLost, 'appsUnavailable' => $s->acceptedAppsUnavailable],
        ] + ($s->startsAt === null ? [] : ['startsAt' => Rfc3339::format($s->startsAt)]);
    }

    /** @return array<string, mixed> */
    private static function writeBackup(HeldBackup $b): array
    {
        return [
            'id' => $b->id, 'where' => $b->inCloud ? 'cloud' : 'bag', 'takenAt' => Rfc3339::format($b->takenAt), 'madeOn' => (string) $b->madeOn,
            'declaredVersion' => (string) $b->declaredVersion, 'encrypted' => $b->encrypted, 'passphraseProven' => $b->passphraseProven,
            'verified' => $b->verified, 'kinds' => array_column($b->kinds, 'value'), 'storeSchemas' => (object) $b->storeSchemas,
        ];
    }

    /** @return array<string, mixed> */
    private static function writeBench(BenchFigures $b): array
    {
        return [
            'linkBytesPerSecond' => $b->link->likely, 'backupBytesPerSecond' => $b->backup->likely, 'returnBytesPerSecond' => $b->return->likely,
            'hostAgent' => $b->hostAgent?->label(), 'freeDiskBytes' => $b->freeDiskBytes,
            'measured' => [
                'linkBytesPerSecond' => $b->link->points(), 'backupBytesPerSecond' => $b->backup->points(), 'returnBytesPerSecond' => $b->return->points(),
            ] + ($b->installMinutes === null ? [] : ['installMinutes' => $b->installMinutes->points()]),
        ];
    }

    private static function backup(\stdClass $b, string $at, Reader $r): HeldBackup
    {
        return new HeldBackup(
            $b->id, $b->where === 'cloud',
            $r->time($b->takenAt, "{$at}/takenAt"),
            $r->version($b->madeOn, "{$at}/madeOn"),
            $r->version($b->declaredVersion, "{$at}/declaredVersion"),
            $b->encrypted, $b->passphraseProven, $b->verified,
            array_map(Kind::from(...), $b->kinds),
            (array) ($b->storeSchemas ?? new \stdClass),
        );
    }

    private static function bench(\stdClass $b, Reader $r): BenchFigures
    {
        $own = $b->measured ?? new \stdClass;
        $rate = static fn (string $field): Rate => isset($own->{$field}) ? self::spread($own->{$field}) : Rate::usual((float) $b->{$field});

        return new BenchFigures(
            $rate('linkBytesPerSecond'), $rate('backupBytesPerSecond'), $rate('returnBytesPerSecond'),
            isset($own->installMinutes) ? self::spread($own->installMinutes) : null,
            $r->maybe($b->hostAgent, '/bench/hostAgent', $r->version(...)),
            $b->freeDiskBytes,
        );
    }

    private static function spread(\stdClass $s): Rate
    {
        return Rate::of((float) $s->low, (float) $s->likely, (float) $s->high);
    }

    private static function goal(\stdClass $g, Reader $r): Goal
    {
        return match (true) {
            isset($g->exact) => Goal::exact($r->version($g->exact, '/goal/exact')),
            isset($g->newestInMajor) => Goal::newestInMajor($g->newestInMajor),
            isset($g->newestBelow) => Goal::newestBelow($r->version($g->newestBelow, '/goal/newestBelow')),
            default => Goal::newestBefore($r->time($g->newestBefore, '/goal/newestBefore')),
        };
    }
}
