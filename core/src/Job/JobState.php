<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** Whether a job goes on, and if not, how it ended. */
enum JobState: string
{
    case Open = 'open';
    case Done = 'done';
    /** Handed over, without what is named. */
    case DoneWithLosses = 'done-with-losses';
    /** Given back past the erase line before the job was done, with a reason. */
    case Unfinished = 'unfinished';
    /** Left before the erase line, with the device as it was. */
    case Abandoned = 'abandoned';
    /** A job that only backed up. */
    case BackedUp = 'backed-up';

    public function label(): string
    {
        return match ($this) {
            self::Open => 'open',
            self::Done => 'done',
            self::DoneWithLosses => 'done, with named losses',
            self::Unfinished => 'given back unfinished',
            self::Abandoned => 'left as it was',
            self::BackedUp => 'backed up',
        };
    }

    /** How a job that stands so is spoken of. */
    public function words(): string
    {
        return match ($this) {
            self::Open => 'This job is open.',
            self::Done => 'This job is done. The device was handed over.',
            self::DoneWithLosses => 'This job is done. The device was handed over, without what is named.',
            self::Unfinished => 'This device was given back unfinished.',
            self::Abandoned => 'This job was left before the erase line. The device is as it was.',
            self::BackedUp => 'This device was backed up.',
        };
    }

    /** Whether the device was handed over, so that there is aftercare to tick. */
    public function isHandedOver(): bool
    {
        return match ($this) {
            self::Done, self::DoneWithLosses => true,
            self::Open, self::Unfinished, self::Abandoned, self::BackedUp => false,
        };
    }
}
