<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/** The steps of a route with one erase install, in minutes. Defaults are common practice, no source. */
final readonly class Timetable
{
    private const VERIFY_BYTES_PER_SECOND = 200_000_000;

    private function __construct(public Minutes $untilPermit, public Minutes $whole)
    {
    }

    public static function of(Situation $situation, int $fetchBytes, bool $putsDataBack): self
    {
        $bench = $situation->bench;
        $backupBytes = $situation->plannedBackup === PlannedBackup::None ? 0 : $situation->device->contentBytes();
        $before = [
            Minutes::of(1, 2, 4),
            Minutes::moving($backupBytes, $bench->backupBytesPerSecond),
            Minutes::moving($backupBytes, self::VERIFY_BYTES_PER_SECOND),
            Minutes::moving($fetchBytes, $bench->linkBytesPerSecond),
            Minutes::of(1, 2, 5),
        ];
        $after = [Minutes::of(8, 10, 15), Minutes::of(4, 6, 12)];
        $back = $putsDataBack
            ? [Minutes::moving($backupBytes, $bench->returnBytesPerSecond), Minutes::of(3, 5, 10)]
            : [];

        return new self(Minutes::sum(...$before), Minutes::sum(...$before, ...$after, ...$back));
    }
}
