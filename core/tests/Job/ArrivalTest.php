<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Job;

use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\WayBack\Arrival;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ArrivalTest extends TestCase
{
    /**
     * @param  array<string, int>  $there  items on the device now, by kind
     * @param  array{bool, bool, string}  $said  whether it is whole, whether it has begun, what is not all there
     */
    #[DataProvider('arrivals')]
    public function test_a_cloud_backup_has_arrived_by_what_the_device_lists(array $there, array $said): void
    {
        $before = self::holding(['photos' => 30, 'contacts' => 64, 'settings' => 5, 'notes' => 0]);

        $arrival = Arrival::of(
            [Kind::Photos, Kind::Contacts, Kind::Settings, Kind::Notes],
            $before,
            self::holding($there),
        );

        self::assertSame($said, [$arrival->isWhole(), $arrival->hasBegun(), $arrival->shortWords()]);
    }

    /** @return iterable<string, array{array<string, int>, array{bool, bool, string}}> */
    public static function arrivals(): iterable
    {
        yield 'nothing yet, with the settings of a new device' => [
            ['settings' => 5],
            [false, false, '0 of 30 in photos, 0 of 64 in contacts'],
        ];
        yield 'some' => [['photos' => 12, 'contacts' => 64], [false, true, '12 of 30 in photos']];
        yield 'all' => [['photos' => 30, 'contacts' => 64], [true, true, '']];
    }

    public function test_a_backup_of_which_nothing_can_be_told_is_never_whole(): void
    {
        self::assertFalse(Arrival::of([], self::holding(['photos' => 30]), self::holding(['photos' => 30]))->isWhole());
    }

    /** @param  array<string, int>  $items */
    private static function holding(array $items): Device
    {
        $kinds = array_map(
            static fn (string $kind, int $many): array => ['items' => $many] + Sample::stock($kind),
            array_keys($items),
            $items,
        );

        return Sample::read(Sample::situation(['kinds' => $kinds]))->device;
    }
}
