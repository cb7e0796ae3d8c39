<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

enum LaneState: string
{
    case Signed = 'signed';
    case EndAnnounced = 'end-announced';
    case Closed = 'closed';
    case NotOpenYet = 'not-open-yet';
    /** The knowledge is too old to say. */
    case Unknown = 'unknown';
}
