<?php

declare(strict_types=1);

namespace App\Bench;

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
}
