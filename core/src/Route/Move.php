<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

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
}
