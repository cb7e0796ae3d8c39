<?php

declare(strict_types=1);

namespace JadeStep\Core\Aftercare;

enum AftercareState: string
{
    /** Somebody has to do it. */
    case Open = 'open';

    /** The device shows that it is so. */
    case Seen = 'seen';

    /** A person says that it was done, or was told to the owner. */
    case Attested = 'attested';

    /** Nothing to do, it is told. */
    case Told = 'told';

    public function label(): string
    {
        return match ($this) {
            self::Open => 'to do',
            self::Seen => 'seen on the device',
            self::Attested => 'done',
            self::Told => '',
        };
    }
}
