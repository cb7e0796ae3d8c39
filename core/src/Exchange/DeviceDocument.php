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
use JadeStep\Core\Time\Rfc3339;

/**
 * A device as a situation document has it.
 *
 * @implements Document<Device>
 */
final class DeviceDocument implements Document
{
    public static function write(object $value): array
    {
        return [
            'serial' => $value->serial,
            'hardwareId' => $value->hardwareId,
            'modelName' => $value->modelName,
            'osLine' => $value->osLine,
            'version' => (string) $value->version,
            'build' => $value->build,
            'rollbackCounter' => $value->rollbackCounter,
            'radioMinimum' => $value->radioMinimum,
            'capacityBytes' => $value->capacityBytes,
            'freeBytes' => $value->freeBytes,
            'batteryPercent' => $value->batteryPercent,
            'charging' => $value->charging,
            'paired' => $value->paired,
            'ownerLock' => $value->ownerLock?->value,
            'lockDelay' => $value->lockDelay?->value,
            'lockDelayEndsAt' => Rfc3339::formatOrNull($value->lockDelayEndsAt),
            'ownerAccountAtHand' => $value->ownerAccountAtHand,
            'passcodeKnown' => $value->passcodeKnown,
            'betaEnrolled' => $value->betaEnrolled,
            'accessories' => array_map(self::accessory(...), $value->accessories),
            'apps' => array_map(self::app(...), $value->apps),
            'kinds' => array_map(self::stock(...), $value->kinds),
        ] + self::unusual($value);
    }

    public static function read(Fields $document): Device
    {
        $identity = $document->maybeIn('identity');

        return new Device(
            $document->string('serial'),
            $document->maybeString('hardwareId'),
            $document->string('modelName'),
            $document->string('osLine'),
            $document->version('version'),
            $document->string('build'),
            $document->maybeInt('rollbackCounter'),
            $document->maybeInt('radioMinimum'),
            $document->maybeInt('capacityBytes'),
            $document->maybeInt('freeBytes'),
            $document->maybeInt('batteryPercent'),
            $document->maybeBool('charging'),
            $document->maybeBool('paired'),
            $document->maybeEnum('ownerLock', OwnerLock::class),
            $document->maybeEnum('lockDelay', OwnerLock::class),
            $document->maybeTime('lockDelayEndsAt'),
            $document->maybeBool('ownerAccountAtHand'),
            $document->maybeBool('passcodeKnown'),
            $document->maybeBool('betaEnrolled'),
            $document->each('accessories', self::readAccessory(...)),
            $document->each('apps', self::readApp(...)),
            $document->each('kinds', self::readStock(...)),
            $identity === null ? Unresolved::byName() : self::readIdentity($identity),
            $document->maybeBool('dataOnDevice') ?? true,
            $document->maybeBool('bootable') ?? true,
        );
    }

    /** @return array<string, mixed> what most devices do not have */
    private static function unusual(Device $d): array
    {
        $identity = [
            'candidates' => $d->identity->candidates,
            'answered' => array_column($d->identity->answered, 'value'),
        ];

        return ($d->identity->candidates === null ? [] : ['identity' => $identity])
            + ($d->dataOnDevice ? [] : ['dataOnDevice' => false])
            + ($d->bootable ? [] : ['bootable' => false]);
    }

    private static function readIdentity(Fields $f): Unresolved
    {
        return new Unresolved(
            $f->has('candidates') ? $f->strings('candidates') : null,
            $f->enums('answered', Question::class),
        );
    }

    /** @return array<string, string> */
    private static function accessory(Accessory $a): array
    {
        return ['id' => $a->id, 'type' => $a->type, 'osVersion' => (string) $a->osVersion];
    }

    private static function readAccessory(Fields $f): Accessory
    {
        return new Accessory($f->string('id'), $f->string('type'), $f->version('osVersion'));
    }

    /** @return array<string, string> */
    private static function app(App $a): array
    {
        return ['id' => $a->id, 'name' => $a->name, 'minimumOs' => (string) $a->minimumOs];
    }

    private static function readApp(Fields $f): App
    {
        return new App($f->string('id'), $f->string('name'), $f->version('minimumOs'));
    }

    /** @return array<string, mixed> */
    private static function stock(KindStock $s): array
    {
        return [
            'kind' => $s->kind->value,
            'items' => $s->items,
            'bytes' => $s->bytes,
            'lastChangedAt' => Rfc3339::formatOrNull($s->lastChangedAt),
            'syncedAt' => Rfc3339::formatOrNull($s->syncedAt),
        ];
    }

    private static function readStock(Fields $f): KindStock
    {
        return new KindStock(
            $f->enum('kind', Kind::class),
            $f->int('items'),
            $f->int('bytes'),
            $f->maybeTime('lastChangedAt'),
            $f->maybeTime('syncedAt'),
        );
    }
}
