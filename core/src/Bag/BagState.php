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
}
