<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** Why an act is not open. */
enum RefusalCode: string
{
    case NotYet = 'not-yet';
    case NotAnyMore = 'not-any-more';
    case NotNow = 'not-now';
    case JobEnded = 'job-ended';
    case EraseLineClosed = 'erase-line-closed';
}
