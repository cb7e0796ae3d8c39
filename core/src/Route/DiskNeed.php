<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/** How much disk backups and packages need at most. */
final class DiskNeed
{
    /** A tenth is kept spare (common practice, no source). */
    private const SPARE = 10;

    /**
     * Every backup and every package, the largest package once more for its extraction, and what is kept spare.
     *
     * @param  list<int>  $backups  bytes of each
     * @param  list<int>  $packages  bytes of each that is to be fetched
     * @return int bytes
     */
    public static function of(array $backups, array $packages): int
    {
        $need = array_sum($backups) + array_sum($packages) + max([0, ...$packages]);

        return $need + intdiv($need + self::SPARE - 1, self::SPARE);
    }
}
