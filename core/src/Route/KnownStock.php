<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\KindStock;

/**
 * What a device held before somebody else erased it, as far as its backups tell: of every kind what the newest of them
 * that has it holds.
 */
final class KnownStock
{
    /**
     * @param  list<array{HeldBackup, array<string, int>}>  $backups  each with its items by kind code; a kind that it
     *   holds and does not count is known to be there, and no more
     * @return list<KindStock> in the order of the kinds
     */
    public static function of(array $backups): array
    {
        usort($backups, static fn (array $a, array $b): int => $a[0]->takenAt <=> $b[0]->takenAt);
        $stocks = [];
        foreach ($backups as [$backup, $counts]) {
            foreach ($backup->kinds as $kind) {
                $stocks[$kind->value] = new KindStock($kind, $counts[$kind->value] ?? 0, 0, $backup->takenAt, null);
            }
        }

        return array_values(
            array_filter(array_map(static fn (Kind $k): ?KindStock => $stocks[$k->value] ?? null, Kind::cases())),
        );
    }
}
