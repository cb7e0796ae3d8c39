<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

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
        $gigabytes = static fn (int $bytes): string => number_format(ceil($bytes / 1e8) / 10, 1).' GB';

        return $this->isEnough() ? '' : 'What this batch has still to back up and to fetch needs up to '
            .$gigabytes($this->neededBytes).', and '.number_format(floor($this->freeBytes / 1e8) / 10, 1)
            .' GB are free. Free '.$gigabytes($this->neededBytes - $this->freeBytes)
            .', or keep backups on a larger disk.';
    }
}
