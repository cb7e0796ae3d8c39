<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

enum BagState: string
{
    case Writing = 'writing';
    case Complete = 'complete';
    case Verified = 'verified';
    case Sealed = 'sealed';
    case Damaged = 'damaged';

    /** Whether it was read back whole; a sealed copy was. */
    public function proven(): bool
    {
        return $this === self::Verified || $this === self::Sealed;
    }

    public function label(): string
    {
        return match ($this) {
            self::Writing => 'being written',
            self::Complete => 'complete, not read back yet',
            self::Verified => 'verified',
            self::Sealed => 'sealed',
            self::Damaged => 'damaged',
        };
    }
}
