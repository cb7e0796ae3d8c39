<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** The three things that may be said of a finished return, and that nothing can be said yet. */
enum VerdictCode: string
{
    case NotYet = 'not-yet';
    case NothingMissing = 'nothing-missing';
    case AsNamed = 'as-named';
    case MoreMissing = 'more-missing';

    public function label(): string
    {
        return match ($this) {
            self::NotYet => 'Not compared yet',
            self::NothingMissing => 'Nothing is missing',
            self::AsNamed => 'All is as the plan named it',
            self::MoreMissing => 'More is missing than was named',
        };
    }
}
