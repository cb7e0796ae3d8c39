<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\Exception\UnsafePath;
use JadeStep\Core\Bag\PayloadPath;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PayloadPathTest extends TestCase
{
    #[DataProvider('safe')]
    public function test_takes_paths_that_stay_inside(string $path, string $encoded): void
    {
        self::assertSame([$path, $encoded], [(string) PayloadPath::parse($path), PayloadPath::parse($path)->encoded()]);
        self::assertSame($path, (string) PayloadPath::decode($encoded));
    }

    /** @return iterable<array{string, string}> */
    public static function safe(): iterable
    {
        yield ['a.jpg', 'a.jpg'];
        yield ['photos/2026/ålesund 1.jpg', 'photos/2026/ålesund 1.jpg'];
        yield ['notes/100%.md', 'notes/100%25.md'];
        yield ['notes/%0A.md', 'notes/%250A.md'];
        yield ['...hidden/..x', '...hidden/..x'];
    }

    #[DataProvider('unsafe')]
    public function test_refuses_paths_that_may_not(string $path): void
    {
        $this->expectException(UnsafePath::class);

        PayloadPath::parse($path);
    }

    /** @return iterable<array{string}> */
    public static function unsafe(): iterable
    {
        yield from array_map(static fn (string $p): array => [$p], [
            '',
            '.',
            '..',
            '../a',
            'a/../b',
            'a/./b',
            'a//b',
            'a/',
            '/a',
            '~/a',
            'C:/a',
            'a\\b',
            "a\nb",
            "a\0b",
            "a\x7f",
            "\xff\xfe",
            str_repeat('a', 256),
            str_repeat('a/', 501).'a',
        ]);
    }
}
