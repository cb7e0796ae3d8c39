<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Device;

use JadeStep\Core\Device\HomeLayout;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class HomeLayoutTest extends TestCase
{
    private const BEFORE = '{"dock": ["phone", "tide-table"], "pages": [["camera", {"folder": "Deck", '
        .'"apps": ["roster", "notes"]}], ["photos"]]}';

    private const AFTER = '{"dock": ["phone", "tide-table"], "pages": [["camera", {"folder": "Deck", '
        .'"apps": ["notes"]}]]}';

    public function test_it_is_drawn_by_the_apps_names_and_what_is_missing_is_marked(): void
    {
        $before = HomeLayout::parse(self::BEFORE);
        $drawn = $before?->drawn(['roster' => 'Watch Roster'], HomeLayout::parse(self::AFTER));

        self::assertSame(
            [
                [['name' => 'Phone', 'missing' => false], ['name' => 'Tide table', 'missing' => false]],
                ['folder' => null, 'apps' => [['name' => 'Camera', 'missing' => false]]],
                [
                    'folder' => 'Deck',
                    'apps' => [['name' => 'Watch Roster', 'missing' => true], ['name' => 'Notes', 'missing' => false]],
                ],
                [['folder' => null, 'apps' => [['name' => 'Photos', 'missing' => true]]]],
            ],
            [
                $drawn['dock'] ?? null,
                $drawn['pages'][0][0] ?? null,
                $drawn['pages'][0][1] ?? null,
                $drawn['pages'][1] ?? null,
            ],
        );
        self::assertSame(['phone', 'tide-table', 'camera', 'roster', 'notes', 'photos'], $before?->apps());
    }

    public function test_held_against_nothing_nothing_is_missing(): void
    {
        $drawn = HomeLayout::parse(self::AFTER)?->drawn([], null);

        self::assertSame([false, false], array_column($drawn['dock'] ?? [], 'missing'));
    }

    /** @param  list<string>|null  $apps */
    #[DataProvider('strange')]
    public function test_what_a_device_writes_otherwise_is_read_as_far_as_it_goes(string $json, ?array $apps): void
    {
        self::assertSame($apps, HomeLayout::parse($json)?->apps());
    }

    /** @return iterable<string, array{string, list<string>|null}> */
    public static function strange(): iterable
    {
        yield 'no JSON' => ['dock: phone', null];
        yield 'a number' => ['3', null];
        yield 'nothing in it' => ['{}', []];
        yield 'pages that are counted only' => ['{"dock": ["phone"], "pages": 2}', ['phone']];
        yield 'what is no app' => [
            '{"dock": [1, "phone", null], "pages": [["a", 7, {"folder": 3}, []], 4]}',
            ['phone', 'a'],
        ];
    }
}
