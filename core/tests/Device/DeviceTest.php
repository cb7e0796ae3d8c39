<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Device;

use JadeStep\Core\Copied;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Device\Question;
use JadeStep\Core\Device\Unresolved;
use JadeStep\Core\Exchange\DeviceDocument;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class DeviceTest extends TestCase
{
    #[DataProvider('storages')]
    public function test_used_bytes_bound_a_backup_from_above(?int $capacity, ?int $free, int $bound): void
    {
        $device = Sample::read(Sample::situation([
            'capacityBytes' => $capacity,
            'freeBytes' => $free,
            'kinds' => [['bytes' => 700] + Sample::stock('photos'), ['bytes' => 50] + Sample::stock('notes')],
        ]))->device;

        self::assertSame($bound, $device->backupBytesAtMost());
    }

    /** @return iterable<string, array{int|null, int|null, int}> */
    public static function storages(): iterable
    {
        yield 'what is used' => [64_000, 63_000, 1_000];
        yield 'the sizes of the kinds, where storage is not read' => [null, null, 750];
        yield 'the same, where one of both is not' => [64_000, null, 750];
    }

    public function test_what_is_known_of_a_device_without_a_hardware_id_is_written_and_read_back(): void
    {
        $device = Sample::read(Sample::situation())->device;
        $narrowed = Copied::with($device, identity: new Unresolved(['FN7-1', 'FN7-3'], [Question::cases()[0]]));

        self::assertArrayNotHasKey('identity', DeviceDocument::write($device));
        self::assertEquals(
            $narrowed->identity,
            DeviceDocument::read(Fields::of(DeviceDocument::write($narrowed)))->identity,
        );
    }

    public function test_what_is_at_risk_counts_as_a_loss(): void
    {
        self::assertSame(
            ['at-risk', 'lost'],
            array_values(
                array_map(
                    static fn (Outcome $o): string => $o->value,
                    array_filter(Outcome::cases(), static fn (Outcome $o): bool => $o->isLoss()),
                ),
            ),
        );
    }
}
