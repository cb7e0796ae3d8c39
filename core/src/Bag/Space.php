<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Internal\Tree;

/** How much bags take on the disk, and what they save by sharing their payload. */
final readonly class Space
{
    /** @param  int  $saved  bytes that would be taken in addition if nothing were shared */
    private function __construct(public int $taken, public int $saved)
    {
    }

    /** @param  iterable<string>  $folders */
    public static function of(iterable $folders): self
    {
        $seen = [];
        $taken = 0;
        $saved = 0;
        foreach ($folders as $folder) {
            foreach (Tree::files($folder) as $info) {
                $stat = @lstat($info->getPathname());
                if ($stat === false) {
                    continue;
                }
                $inode = "{$stat['dev']} {$stat['ino']}";
                $saved += isset($seen[$inode]) ? $stat['size'] : 0;
                $taken += isset($seen[$inode]) ? 0 : $stat['size'];
                if ($stat['nlink'] >= 2) {
                    $seen[$inode] = true;
                }
            }
        }

        return new self($taken, $saved);
    }

    /** The bytes that the disk has again when a bag's folder is taken away: of files that no other one has. */
    public static function onlyIn(string $folder): int
    {
        $bytes = 0;
        foreach (Tree::files("{$folder}/data") as $info) {
            $stat = @lstat($info->getPathname());
            $bytes += $stat !== false && $stat['nlink'] === 1 ? $stat['size'] : 0;
        }

        return $bytes;
    }

    /**
     * How many days the free bytes last, at the rate of the last ones.
     *
     * @return float|null null where nothing was added
     */
    public static function daysLeft(int $freeBytes, int $addedBytes, float $days): ?float
    {
        return $addedBytes <= 0 || $days <= 0 ? null : $freeBytes / ($addedBytes / $days);
    }
}
