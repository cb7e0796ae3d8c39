<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;

enum Move: string
{
    case EraseInstall = 'erase-install';
    case InPlaceUpdate = 'in-place-update';
    case InPlaceStepDown = 'in-place-step-down';

    public function label(): string
    {
        return match ($this) {
            self::EraseInstall => 'erase install',
            self::InPlaceUpdate => 'in-place update',
            self::InPlaceStepDown => 'in-place step-down',
        };
    }

    public function erases(): bool
    {
        return match ($this) {
            self::EraseInstall => true,
            self::InPlaceUpdate, self::InPlaceStepDown => false,
        };
    }

    /** @return list<self> the moves that a build's own rules allow from what is installed */
    public static function open(Build $build, Installed $from): array
    {
        if (! $from->bootable) {
            return $build->eraseInstall ? [self::EraseInstall] : [];
        }
        $higher = $build->version->compare($from->version);
        $stepDown =
            $higher < 0
            && $build->version->major === $from->version->major
            && $build->stepDownFrom?->contains($from->version) === true;

        return [
            ...($build->eraseInstall ? [self::EraseInstall] : []),
            ...($higher > 0 && $build->inPlaceFrom?->contains($from->version) === true ? [self::InPlaceUpdate] : []),
            ...($stepDown ? [self::InPlaceStepDown] : []),
        ];
    }
}
