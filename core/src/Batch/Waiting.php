<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Job\Need;

/** What a step of a batch had to wait for. */
enum Waiting: string
{
    case ForPort = 'port';
    case ForHands = 'hands';
    case ForWorker = 'worker';
    case ForLine = 'line';
    case ForDisk = 'disk';
    case ForHours = 'hours';
    /** A moment before which it may not begin: a lock delay, or when the device is brought. */
    case ForMoment = 'moment';
    /** Anything else that it needs. */
    case ForOther = 'other';

    public static function forNeed(string $name): self
    {
        return match (Need::tryFrom($name)) {
            Need::Port => self::ForPort,
            Need::Hands => self::ForHands,
            Need::Worker => self::ForWorker,
            Need::Line => self::ForLine,
            Need::Disk => self::ForDisk,
            null => self::ForOther,
        };
    }

    /** As it follows "waits". */
    public function words(): string
    {
        return match ($this) {
            self::ForPort => 'for a port',
            self::ForHands => 'for a technician',
            self::ForWorker => 'for a worker',
            self::ForLine => 'for the line to the vendor',
            self::ForDisk => 'for the disk',
            self::ForHours => 'for somebody to be there',
            self::ForMoment => 'for a delay to end',
            self::ForOther => 'for what it needs',
        };
    }
}
