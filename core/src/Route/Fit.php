<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Device\Device;

/** Whether a device can take a build at all, whatever is signed when. */
enum Fit: string
{
    case Takes = 'takes';
    case Installed = 'installed';
    case BelowCounter = 'rollback-floor';
    case BelowRadio = 'radio-mismatch';
    case NoMove = 'no-move';

    public static function of(Build $build, Device $device): self
    {
        $runs = Installed::on($device);

        return match (true) {
            $runs->runs($build) => self::Installed,
            self::isBelowCounter($build, $runs) => self::BelowCounter,
            self::isBelowRadio($build, $device) => self::BelowRadio,
            Move::open($build, $runs) === [] => self::NoMove,
            default => self::Takes,
        };
    }

    public static function isBelowCounter(Build $build, Installed $from): bool
    {
        return $build->rollbackIndex < $from->rollbackCounter;
    }

    /** @phpstan-assert-if-true !null $device->radioMinimum */
    public static function isBelowRadio(Build $build, Device $device): bool
    {
        return $device->radioMinimum !== null && $build->radioLevel < $device->radioMinimum;
    }

    public function label(): string
    {
        return match ($this) {
            self::Takes => '',
            self::Installed => 'installed',
            self::BelowCounter => 'below its rollback counter',
            self::BelowRadio => 'below its radio level',
            self::NoMove => 'no way to it from what is installed',
        };
    }
}
