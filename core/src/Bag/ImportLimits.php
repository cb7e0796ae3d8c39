<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** What a bag from outside may be at most, so that a small file cannot fill the disk. */
final readonly class ImportLimits
{
    /** @param  int  $ratio  how many times its packed size an archive may unpack to */
    public function __construct(public int $entries, public int $bytes, public int $ratio)
    {
    }

    public static function usual(int $freeBytes): self
    {
        return new self(1_000_000, max(0, intdiv($freeBytes, 10) * 9), 100);
    }
}
