<?php

declare(strict_types=1);

namespace App\Bench;

enum StepState: string
{
    /** Something before it is not done. */
    case Waiting = 'waiting';
    /** A worker may take it. */
    case Ready = 'ready';
    case Running = 'running';
    /** It goes on when a person has done something. */
    case NeedsHand = 'needs-hand';
    case Done = 'done';
    case Failed = 'failed';
}
