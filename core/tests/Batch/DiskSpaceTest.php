<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Batch;

use JadeStep\Core\Batch\Batch;
use JadeStep\Core\Batch\BatchDevice;
use JadeStep\Core\Batch\BatchStep;
use JadeStep\Core\Batch\DiskSpace;
use JadeStep\Core\Batch\PackageFetch;
use JadeStep\Core\Batch\WorkingHours;
use JadeStep\Core\Batch\Workshop;
use JadeStep\Core\Route\Minutes;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\TestCase;

final class DiskSpaceTest extends TestCase
{
    /** A package needs its size twice, and a tenth of all is kept spare (common practice, no source). */
    public function test_backups_add_up_and_a_package_counts_once_and_once_more_for_its_extraction(): void
    {
        $space = DiskSpace::of(self::batch(101_199_999_999)) ?? self::fail('It was told how much is free.');

        self::assertSame(101_200_000_000, $space->neededBytes); // (2 × 40 + 6 + 6) × 1.1
        self::assertFalse($space->isEnough());
        self::assertSame(
            'What this batch has still to back up and to fetch needs up to 101.2 GB, and 101.1 GB are free. Free '
                .'0.1 GB, or keep backups on a larger disk.',
            $space->words(),
        );
    }

    public function test_where_it_fits_or_is_not_known_nothing_is_said(): void
    {
        $space = DiskSpace::of(self::batch(101_200_000_000)) ?? self::fail('It was told how much is free.');

        self::assertTrue($space->isEnough());
        self::assertSame('', $space->words());
        self::assertNull(DiskSpace::of(self::batch(null)));
    }

    private static function batch(?int $free): Batch
    {
        $install = new BatchStep('install', 0, Minutes::of(9, 9, 9), ['port'], [], null, null, ['needed']);
        $device = static fn (string $id): BatchDevice => new BatchDevice(
            $id,
            $id,
            [$install],
            backupBytes: 40 * 10 ** 9,
        );
        $minute = Minutes::of(1, 1, 1);

        return new Batch(
            Rfc3339::parse(Shops::START),
            null,
            Workshop::of(1, 1, 1, 1, 1, WorkingHours::always()),
            [$device('a'), $device('b')],
            [
                new PackageFetch('needed', $minute, 6 * 10 ** 9),
                new PackageFetch('of another way', $minute, 90 * 10 ** 9),
            ],
            $free,
        );
    }
}
