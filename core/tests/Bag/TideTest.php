<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Tide;
use JadeStep\Core\Bag\TideSpan;
use PHPUnit\Framework\TestCase;

/** What a bag holds over time. */
final class TideTest extends TestCase
{
    public function test_nothing_has_no_tide(): void
    {
        $tide = Tide::of(Inventory::of([], []));
        self::assertSame([[], []], [$tide->spans, $tide->bytes]);
    }

    public function test_items_of_one_day_are_one_span(): void
    {
        $tide = Tide::of(Inventory::of([], [
            self::item('photos', '2026-11-01T08:00:00Z', 10),
            self::item('notes', '2026-11-01T20:00:00Z', 5),
        ]));
        self::assertSame([['2026-11-01 08:00', '2026-11-02 08:00', 2, 15]], self::told($tide));
        self::assertSame(['photos' => 10, 'notes' => 5], $tide->bytes);
    }

    public function test_spans_are_of_one_length_and_none_is_left_out(): void
    {
        $tide = Tide::of(Inventory::of([], [
            self::item('photos', '2026-11-01T00:00:00Z', 1),
            self::item('photos', '2026-11-03T12:00:00Z', 4),
        ]));
        self::assertSame([
            ['2026-11-01 00:00', '2026-11-02 00:00', 1, 1],
            ['2026-11-02 00:00', '2026-11-03 00:00', 0, 0],
            ['2026-11-03 00:00', '2026-11-04 00:00', 1, 4],
        ], self::told($tide));
    }

    public function test_years_are_told_in_at_most_thirty_six_spans_that_hold_all_of_it(): void
    {
        $items = [];
        for ($n = 0; $n < 500; $n++) {
            $items[] = self::item('photos', gmdate('Y-m-d\TH:i:s\Z', 1_500_000_000 + $n * 600_000), 2);
        }
        $tide = Tide::of(Inventory::of([], $items));
        self::assertLessThanOrEqual(36, count($tide->spans));
        self::assertSame(500, array_sum(array_column($tide->spans, 'items')));
        self::assertSame(1000, array_sum(array_column($tide->spans, 'bytes')));
    }

    private static function item(string $kind, string $at, int $bytes): Item
    {
        static $number = 0;

        return new Item($kind, "{$kind}/".++$number, $bytes, str_repeat('0', 64), new \DateTimeImmutable($at));
    }

    /** @return list<array{string, string, int, int}> */
    private static function told(Tide $tide): array
    {
        return array_map(static fn (TideSpan $s): array => [
            $s->from->format('Y-m-d H:i'),
            $s->until->format('Y-m-d H:i'),
            $s->items,
            $s->bytes,
        ], $tide->spans);
    }
}
