<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Amount;
use JadeStep\Core\Route\DiskNeed;

/** Whether the backups that a batch has still to take, which all stay, and its packages have room beside each other. */
final readonly class DiskSpace
{
    private function __construct(public int $neededBytes, public int $freeBytes)
    {
    }

    /** @return self|null null where nobody has told how much is free */
    public static function of(Batch $batch): ?self
    {
        return $batch->freeDiskBytes === null ? null : new self(
            DiskNeed::of(
                array_map(static fn (BatchDevice $d): int => $d->backupBytes, $batch->devices),
                array_map(static fn (PackageFetch $p): int => $p->bytes, array_values($batch->neededFetches())),
            ),
            $batch->freeDiskBytes,
        );
    }

    public function isEnough(): bool
    {
        return $this->neededBytes <= $this->freeBytes;
    }

    /** Two whole sentences; empty where there is enough. */
    public function words(): string
    {
        return $this->isEnough() ? '' : 'What this batch has still to back up and to fetch needs up to '
            .Amount::needed($this->neededBytes).', and '.Amount::there($this->freeBytes).' are free. Free '
            .Amount::needed($this->neededBytes - $this->freeBytes)
            .', or keep backups on a larger disk.';
    }
}
