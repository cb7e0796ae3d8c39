<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** What a step cannot go on without while it runs, and shares with the steps of other jobs. */
enum Need: string
{
    /** The place where a device is plugged in. It keeps it from its first step to its last. */
    case Port = 'port';
    /** A technician, who does one thing at a time, and in working hours only. */
    case Hands = 'hands';
    /** One of the programs that do the work of steps. */
    case Worker = 'worker';
    /** The line to the vendor. */
    case Line = 'line';
    /** The disk of the bag store, which a few can read or write at a time without slowing each other. */
    case Disk = 'disk';

    public function label(): string
    {
        return match ($this) {
            self::Port => 'a port',
            self::Hands => 'a technician',
            self::Worker => 'a worker',
            self::Line => 'the line to the vendor',
            self::Disk => 'the disk',
        };
    }
}
