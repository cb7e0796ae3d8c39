<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

/** What a person says of a kind that is waited for. */
enum OverlayState: string
{
    /** It has arrived, by what the person sees on the device. */
    case Attested = 'attested';
    /** It is not waited for any more. */
    case NotWaited = 'not-waited';
    /** The device took none of it: said of the owner's cloud backup only. */
    case Refused = 'refused';

    public function label(): string
    {
        return match ($this) {
            self::Attested => 'has arrived',
            self::NotWaited => 'not waited for',
            self::Refused => 'refused by the device',
        };
    }
}
