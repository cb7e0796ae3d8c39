<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\Comparison;
use JadeStep\Core\Bag\Exception\UnreadableInventory;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Items;
use JadeStep\Core\Bag\KindComparison;
use JadeStep\Core\Bag\Reconciliation;
use JadeStep\Core\Bag\RewriteRule;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ReconciliationTest extends TestCase
{
    /**
     * @param  array<string, string>  $before  content by kind/path
     * @param  array<string, string>  $after
     * @param  list<array<mixed>>  $expected  kind, before, same, changed, missing, extra
     */
    #[DataProvider('cases')]
    public function test_matches_by_path_then_by_digest(
        array $before,
        array $after,
        array $expected,
        bool $nothingMissing,
    ): void {
        $proof = Reconciliation::compare(self::inventory($before), self::inventory($after), RewriteRule::usual());

        $paths = static fn (Items $items): array => array_column($items->first(9), 'path');
        self::assertSame(
            $expected,
            array_map(
                static fn (KindComparison $k): array => [
                    $k->kind,
                    $k->before,
                    $k->same,
                    array_column($k->changed, 'path'),
                    $paths($k->missing),
                    $paths($k->extra),
                ],
                $proof->kinds,
            ),
        );
        self::assertSame($nothingMissing, $proof->nothingMissing());
    }

    /** @return iterable<string, array<mixed>> */
    public static function cases(): iterable
    {
        yield 'all the same' => [
            ['photos/a' => '1', 'photos/b' => '2'],
            ['photos/a' => '1', 'photos/b' => '2'],
            [['photos', 2, 2, [], [], []]],
            true,
        ];
        yield 'one missing' => [
            ['photos/a' => '1', 'photos/b' => '2'],
            ['photos/a' => '1'],
            [['photos', 2, 1, [], ['b'], []]],
            false,
        ];
        yield 'a whole kind missing' => [
            ['photos/a' => '1', 'notes/n' => '2'],
            ['photos/a' => '1'],
            [['photos', 1, 1, [], [], []], ['notes', 1, 0, [], ['n'], []]],
            false,
        ];
        yield 'moved: found by its digest' => [
            ['photos/a' => '1'],
            ['photos/album/a' => '1'],
            [['photos', 1, 1, [], [], []]],
            true,
        ];
        yield 'two alike, one gone' => [
            ['photos/a' => '1', 'photos/b' => '1'],
            ['photos/c' => '1'],
            [['photos', 2, 1, [], ['b'], []]],
            false,
        ];
        yield 'altered: the old one is missing, the new one extra' => [
            ['notes/n' => 'old'],
            ['notes/n' => 'new'],
            [['notes', 1, 0, [], ['n'], ['n']]],
            false,
        ];
        yield 'rewritten by the device itself' => [
            ['settings/system/about.json' => 'old', 'settings/user/a' => '1'],
            ['settings/system/about.json' => 'new', 'settings/user/a' => '1'],
            [['settings', 2, 1, ['system/about.json'], [], []]],
            true,
        ];
        yield 'the rule covers no other setting' => [
            ['settings/user/a' => 'old'],
            ['settings/user/a' => 'new'],
            [['settings', 1, 0, [], ['user/a'], ['user/a']]],
            false,
        ];
        yield 'the rule covers no other kind' => [
            ['notes/system/about.json' => 'old'],
            ['notes/system/about.json' => 'new'],
            [['notes', 1, 0, [], ['system/about.json'], ['system/about.json']]],
            false,
        ];
        yield 'a rewritten setting that is gone is missing' => [
            ['settings/system/about.json' => 'old'],
            [],
            [['settings', 1, 0, [], ['system/about.json'], []]],
            false,
        ];
        yield 'new things are no loss' => [
            ['notes/n' => '1'],
            ['notes/n' => '1', 'notes/m' => '2'],
            [['notes', 1, 1, [], [], ['m']]],
            true,
        ];
        yield 'a digest in another kind does not count' => [
            ['photos/a' => '1'],
            ['notes/a' => '1'],
            [['photos', 1, 0, [], ['a'], []], ['notes', 0, 0, [], [], ['a']]],
            false,
        ];
        yield 'names that look like numbers' => [
            ['notes/1' => 'x', 'notes/2' => 'y'],
            ['notes/2' => 'y', 'notes/1' => 'x'],
            [['notes', 2, 2, [], [], []]],
            true,
        ];
    }

    /** Only where apps are missing does the device's own home layout count as by design. */
    public function test_the_rule_that_covers_a_change_is_named(): void
    {
        $compare = static fn (bool $appsAreMissing): KindComparison => Reconciliation::compare(
            self::inventory(['home-layout/layout.json' => 'three']),
            self::inventory(['home-layout/layout.json' => 'two']),
            RewriteRule::usual($appsAreMissing),
        )->kinds[0];

        self::assertSame(
            ['layout-without-apps', []],
            [$compare(true)->changed[0]->rule->name, $compare(true)->missing->first(9)],
        );
        self::assertSame([[], 'layout.json'], [$compare(false)->changed, $compare(false)->missing->first(1)[0]->path]);
    }

    public function test_nothing_lost_is_said_only_where_nothing_was_promised_lost(): void
    {
        $whole = new Comparison([new KindComparison('photos', 1, 1, [], new Items, new Items)]);

        self::assertSame([true, false], [$whole->nothingLost([]), $whole->nothingLost(['health'])]);
    }

    #[DataProvider('badLines')]
    public function test_a_bad_inventory_is_refused_by_its_line(string $text, string $words): void
    {
        $this->expectException(UnreadableInventory::class);
        $this->expectExceptionMessage($words);

        Inventory::parse(explode("\n", $text));
    }

    /** @return iterable<string, array{string, string}> */
    public static function badLines(): iterable
    {
        $head = '{"kind":"notes","items":1,"storeSchema":null}';
        $item =
            '{"kind":"notes","path":"a.md","bytes":1,"sha256":"'
            .str_repeat('a', 64)
            .'","modifiedAt":"2026-11-01T12:00:00Z"}';
        yield 'no JSON' => ['nonsense', 'Line 1'];
        yield 'an unknown kind' => ['{"kind":"socks","items":1,"storeSchema":null}', 'a known kind'];
        yield 'an item before its kind' => [$item, 'of an opened kind'];
        yield 'a kind opened twice' => ["{$head}\n{$item}\n{$head}", 'Line 3'];
        yield 'an item named twice' => ["{$head}\n{$item}\n{$item}", 'notes/a.md a second time'];
        yield 'fewer items than announced' => [$head, 'cut short'];
        yield 'a path that climbs out' => ["{$head}\n".str_replace('a.md', '../a', $item), 'stays inside'];
        yield 'a short digest' => ["{$head}\n".str_replace(str_repeat('a', 64), 'aa', $item), 'Line 2'];
        yield 'a negative size' => ["{$head}\n".str_replace('"bytes":1', '"bytes":-1', $item), 'Line 2'];
        yield 'a time that is none' => [
            "{$head}\n".str_replace('2026-11-01T12:00:00Z', 'yesterday', $item),
            'not a time',
        ];
        yield 'a flood' => ["{$head}\n".str_repeat('x', 70_000), 'longer than'];
    }

    public function test_an_inventory_survives_being_written_and_read(): void
    {
        $inventory = self::inventory(['photos/å b.jpg' => '1', 'notes/"q".md' => '2']);

        $read = Inventory::parse($inventory->lines());
        self::assertEquals(
            [$inventory->kinds, iterator_to_array($inventory->items)],
            [$read->kinds, iterator_to_array($read->items)],
        );
    }

    /** @param  array<string, string>  $contents */
    private static function inventory(array $contents): Inventory
    {
        $lines = [];
        foreach ($contents as $place => $content) {
            [$kind, $path] = explode('/', $place, 2);
            $lines[$kind][] = json_encode(
                [
                    'kind' => $kind,
                    'path' => $path,
                    'bytes' => strlen($content),
                    'sha256' => hash('sha256', $content),
                    'modifiedAt' => '2026-11-01T12:00:00Z',
                ],
                JSON_THROW_ON_ERROR,
            );
        }
        $all = [];
        foreach ($lines as $kind => $items) {
            array_push(
                $all,
                json_encode(['kind' => $kind, 'items' => count($items), 'storeSchema' => null], JSON_THROW_ON_ERROR),
                ...$items,
            );
        }

        return Inventory::parse($all);
    }
}
