<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** The six stages of a job, in order. The erase line runs between Safeguard and Install. */
enum Stage: string
{
    case Identify = 'identify';
    case Choose = 'choose';
    case Safeguard = 'safeguard';
    case Install = 'install';
    case Return = 'return';
    case HandOver = 'hand-over';

    public function label(): string
    {
        return match ($this) {
            self::Identify => 'Identify',
            self::Choose => 'Choose',
            self::Safeguard => 'Safeguard',
            self::Install => 'Install',
            self::Return => 'Return',
            self::HandOver => 'Hand over',
        };
    }
}
