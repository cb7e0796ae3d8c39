<?php

declare(strict_types=1);

namespace App\Watch;

use App\Ports\StorageFolders;

/** How much of the disks is left that bags and packages lie on. */
final readonly class Disk
{
    private const LITTLE_SHARE = 0.1;

    public function __construct(private StorageFolders $places)
    {
    }

    /** Whether so little is left of the disk that bags lie on that somebody is told. */
    public function isNearlyFull(): bool
    {
        return $this->shareFree() < self::LITTLE_SHARE;
    }

    /** @return float 0 to 1, of the disk that bags lie on */
    public function shareFree(): float
    {
        $whole = (float) @disk_total_space($this->places->bags());

        return $whole > 0.0 ? $this->free('bags') / $whole : 1.0;
    }

    /**
     * @param  'bags'|'packages'  $what
     * @return float bytes
     */
    public function free(string $what): float
    {
        return (float) @disk_free_space($what === 'bags' ? $this->places->bags() : $this->places->packages());
    }
}
