<?php

declare(strict_types=1);

namespace JadeStep\Core\Readiness;

enum CheckState: string
{
    case Pass = 'pass';
    case Fail = 'fail';
    case Unknown = 'unknown';
    case Attested = 'attested';
    /** There is nothing to be checked here; it is not shown. */
    case DoesNotApply = 'does-not-apply';

    public function label(): string
    {
        return match ($this) {
            self::Pass => 'passes',
            self::Fail => 'fails',
            self::Unknown => 'not known',
            self::Attested => 'attested',
            self::DoesNotApply => 'does not apply',
        };
    }

    public function letsThrough(): bool
    {
        return match ($this) {
            self::Pass, self::Attested, self::DoesNotApply => true,
            self::Fail, self::Unknown => false,
        };
    }

    public static function ofReading(?bool $good): self
    {
        return match ($good) {
            true => self::Pass,
            false => self::Fail,
            null => self::Unknown,
        };
    }
}
