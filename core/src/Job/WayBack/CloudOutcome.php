<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

/** How a return from the owner's cloud ended. */
enum CloudOutcome: string
{
    /** All that was on the device before is there, by its own listing. */
    case Arrived = 'arrived';
    /** Something came, and not all; what is missing is named. */
    case Partly = 'partly';
    /** The device took none of it. */
    case Refused = 'refused';

    public function label(): string
    {
        return match ($this) {
            self::Arrived => 'All of the cloud backup has arrived.',
            self::Partly => 'The cloud backup has come in part; what is missing is named.',
            self::Refused => 'The device refused the cloud backup.',
        };
    }
}
