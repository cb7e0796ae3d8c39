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

    public function label(): string
    {
        return match ($this) {
            self::Attested => 'has arrived',
            self::NotWaited => 'not waited for',
        };
    }
}
