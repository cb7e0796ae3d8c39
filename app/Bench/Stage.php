<?php

declare(strict_types=1);

namespace App\Bench;

/** The six stages of a job, in order. The erase line runs between Safeguard and Install. */
enum Stage: string
{
    case Identify = 'identify';
    case Choose = 'choose';
    case Safeguard = 'safeguard';
    case Install = 'install';
    case Return = 'return';
    case HandOver = 'hand-over';
}
