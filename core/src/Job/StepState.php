<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

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

    public function label(): string
    {
        return match ($this) {
            self::Waiting => 'waits',
            self::Ready => 'about to run',
            self::Running => 'runs',
            self::NeedsHand => 'needs a hand',
            self::Done => 'done',
            self::Failed => 'failed',
        };
    }

    /** Whether a worker has it, or takes it in a moment. */
    public function isUnderWay(): bool
    {
        return match ($this) {
            self::Ready, self::Running => true,
            self::Waiting, self::NeedsHand, self::Done, self::Failed => false,
        };
    }
}
