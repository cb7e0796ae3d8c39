<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Copied;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;

/** All that the planner needs to know beside the almanac. */
final readonly class Situation
{
    /** Beyond some thousand years it is all one. */
    public const MOST_MINUTES = 1e9;

    /**
     * @param  list<HeldBackup>  $backups
     * @param  array<string, \DateTimeImmutable>  $sideExports  by kind code, when it was taken
     * @param  list<Kind>  $plannedSideExports
     * @param  list<string>  $acceptedPairingLost  accessory ids
     * @param  list<string>  $acceptedAppsUnavailable  app ids
     * @param  \DateTimeImmutable|null  $startsAt  when the work is to begin, where that is not now
     */
    public function __construct(
        public \DateTimeImmutable $now,
        public Device $device,
        public array $backups,
        public array $sideExports,
        public PlannedBackup $plannedBackup,
        public array $plannedSideExports,
        public BenchFigures $bench,
        public Goal $goal,
        public array $acceptedPairingLost,
        public array $acceptedAppsUnavailable,
        public ?\DateTimeImmutable $startsAt = null,
    ) {
    }

    /** The moment that windows and what is taken first are held against; the almanac's age is held against `now`. */
    public function begins(): \DateTimeImmutable
    {
        return $this->startsAt ?? $this->now;
    }

    /** @param  float  $minutes  from the beginning of the work */
    public function after(float $minutes): \DateTimeImmutable
    {
        $microseconds = (int) round(min($minutes, self::MOST_MINUTES) * 60_000_000);

        return $this->begins()->modify("+{$microseconds} microseconds");
    }

    /** The backup that is taken first: none once the data is not on the device any more. */
    public function backupToTake(): PlannedBackup
    {
        return $this->device->dataOnDevice ? $this->plannedBackup : PlannedBackup::None;
    }

    /** @return int bytes that the backup to take may need on the disk at most */
    public function diskForBackup(): int
    {
        return $this->backupToTake() === PlannedBackup::None ? 0 : $this->device->backupBytesAtMost();
    }

    /** The bytes that the backup to take carries. */
    public function bytesToBackUp(): int
    {
        $bytes = 0;
        foreach ($this->device->kinds as $stock) {
            $bytes += $this->backupToTake()->carries($stock->kind) ? $stock->bytes : 0;
        }

        return $bytes;
    }

    /**
     * The same, with side exports in the place of those that are known.
     *
     * @param  array<string, \DateTimeImmutable>  $exports  by kind code
     */
    public function withSideExports(array $exports): self
    {
        return Copied::with($this, sideExports: $exports);
    }
}
