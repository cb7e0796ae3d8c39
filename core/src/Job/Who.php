<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** Whose hand is wanted next. */
enum Who: string
{
    case AtScreen = 'technician-at-screen';
    case AtDevice = 'technician-at-device';
    case Owner = 'owner';
    case Nobody = 'nobody';

    public function label(): string
    {
        return match ($this) {
            self::AtScreen => 'Here on the screen',
            self::AtDevice => 'At the device',
            self::Owner => 'The owner',
            self::Nobody => 'Nobody',
        };
    }
}
