<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Version;

use JadeStep\Core\Version\Exception\UnreadableVersion;
use JadeStep\Core\Version\Version;
use JadeStep\Core\Version\VersionRange;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class VersionTest extends TestCase
{
    #[DataProvider('readings')]
    public function test_reads_and_names(string $text, string $machine, string $label): void
    {
        $version = Version::parse($text);

        self::assertSame([$machine, $label], [(string) $version, $version->label()]);
    }

    /** @return iterable<array{string, string, string}> */
    public static function readings(): iterable
    {
        yield ['9.3.1', '9.3.1', '9.3.1'];
        yield ['9.3', '9.3.0', '9.3'];
        yield ['9', '9.0.0', '9.0'];
        yield ['9.3.0-beta.2', '9.3.0-beta.2', '9.3 beta 2'];
        yield ['9.3.0-rc.1', '9.3.0-rc.1', '9.3 candidate'];
        yield ['9.3.0-rc.2', '9.3.0-rc.2', '9.3 candidate 2'];
        yield ['10.0.0-beta.2', '10.0.0-beta.2', '10.0 beta 2'];
        yield ['9.3.0+5', '9.3.0', '9.3'];
        yield ['9.3.0-beta.2+build.7', '9.3.0-beta.2', '9.3 beta 2'];
        yield ['9.3.0-rc', '9.3.0-rc', '9.3-rc'];
        yield ['9.3.0-beta.x', '9.3.0-beta.x', '9.3-beta.x'];
        yield ['9.3.0-alpha.1.0-x-y', '9.3.0-alpha.1.0-x-y', '9.3-alpha.1.0-x-y'];
        yield ['9.3.1---', '9.3.1---', '9.3.1---'];
        yield ['9.3.0-0a', '9.3.0-0a', '9.3-0a'];
    }

    #[DataProvider('unreadable')]
    public function test_refuses_with_a_remedy(string $text): void
    {
        $this->expectException(UnreadableVersion::class);
        $this->expectExceptionMessage('such as 9.3.1');

        Version::parse($text);
    }

    /** @return iterable<array{string}> */
    public static function unreadable(): iterable
    {
        yield from array_map(static fn (string $t): array => [$t], [
            '',
            ' 9.3',
            '9.3.1 ',
            "9.3.1\n",
            'v9.3',
            '9,3',
            '09.3.0',
            '9.3.0-',
            '9.3.0-beta..2',
            '9.3.0-beta.02',
            '9.3.0+',
            '9.3.0+a..b',
            '9.3.0.1',
            '1234567890.0.0',
            '-1.0.0',
            str_repeat('9', 70),
        ]);
    }

    public function test_a_hostile_text_is_cut_and_escaped_in_the_message(): void
    {
        try {
            Version::parse("9.3\x1b[2J".str_repeat('x', 500));
            self::fail('It was read.');
        } catch (UnreadableVersion $e) {
            self::assertStringContainsString('9.3\u{1B}[2J', $e->getMessage());
            self::assertLessThan(220, mb_strlen($e->getMessage()));
        }
    }

    public function test_orders_are_strict_where_they_say_so(): void
    {
        [$low, $high] = [Version::parse('8.7.0'), Version::parse('9.3.0')];

        self::assertSame(
            [[true, false, true, false], [false, true, false, false], [false, false, true, true]],
            array_map(
                static fn (array $of): array => [
                    $of[0]->isBelow($of[1]), $of[0]->isAbove($of[1]), $of[0]->isAtMost($of[1]), $of[0]->equals($of[1]),
                ],
                [[$low, $high], [$high, $low], [$low, Version::parse('8.7.0')]],
            ),
        );
    }

    #[DataProvider('ranges')]
    public function test_ranges_hold(string $range, string $version, bool $inside): void
    {
        self::assertSame($inside, VersionRange::parse($range)->contains(Version::parse($version)));
    }

    /** @return iterable<array{string, string, bool}> */
    public static function ranges(): iterable
    {
        yield ['>=7.0 <8.7', '8.6.0', true];
        yield ['>=7.0 <8.7', '8.7.0', false];
        yield ['>=7.0 <8.7', '6.9.9', false];
        yield ['>=7.0 <8.7', '7.0.0', true];
        yield ['>=7.0, <8.7', '8.6.9', true];
        yield ['>=5.0', '5.1.0', true];
        yield ['>5.0', '5.0.0', false];
        yield ['>5.0', '5.0.1', true];
        yield ['<=5.0', '5.0.0', true];
        yield ['<=5.0', '5.0.1', false];
        yield ['8.6', '8.6.0', true];
        yield ['=8.6', '8.6.1', false];
        yield ['==8.6', '8.6.0', true];
        yield ['!=8.6', '8.6.0', false];
        yield ['<>8.6', '8.6.1', true];
        yield ['^8.0 || ^9.0', '9.3.1', true];
        yield ['^8.0 || ^9.0', '10.0.0', false];
        yield ['^8.0|^9.0', '8.9.9', true];
        yield ['^8.1.2', '8.1.1', false];
        yield ['^8.1.2', '8.99.0', true];
        yield ['^0.3', '0.4.0', false];
        yield ['^0.3.1', '0.3.9', true];
        yield ['^0.0.3', '0.0.3', true];
        yield ['^0.0.3', '0.0.4', false];
        yield ['^0', '0.9.0', true];
        yield ['~8', '8.9.0', true];
        yield ['~8', '9.0.0', false];
        yield ['~8.1', '8.9.0', true];
        yield ['~8.1', '9.0.0', false];
        yield ['~8.1.2', '8.1.9', true];
        yield ['~8.1.2', '8.2.0', false];
        yield ['8.*', '8.9.9', true];
        yield ['8.*', '9.0.0', false];
        yield ['8.1.x', '8.1.7', true];
        yield ['8.1.x', '8.2.0', false];
        yield ['*', '0.0.0', true];
        yield ['8.0 - 8.6', '8.6.9', true];
        yield ['8.0 - 8.6', '8.7.0', false];
        yield ['8.0.0 - 8.6.1', '8.6.1', true];
        yield ['8.0.0 - 8.6.1', '8.6.2', false];
        // a bound without a pre-release is the release itself
        yield ['<8.7', '8.7.0-rc.1', true];
        yield ['>=8.7', '8.7.0-rc.1', false];
        yield ['>=8.7.0-rc.1', '8.7.0-rc.1', true];
        yield ['>=8.7.0-rc.2', '8.7.0-rc.1', false];
        yield ['>=9.0.0-alpha.x.7 <9.0', '9.0.0-beta', true];
        yield ['>=9.0.0-alpha.x.7 <9.0', '9.0.0-alpha.x.6', false];
        yield ['>=7.0 <8.7', '8.0.0-x-y-z.92', true];
        yield ['>=7.0+meta <8.7', '8.0.0', true];
    }

    #[DataProvider('badRanges')]
    public function test_a_bad_range_is_refused_with_a_remedy(string $range): void
    {
        $this->expectException(UnreadableVersion::class);
        $this->expectExceptionMessage('write comparisons such as');

        VersionRange::parse($range);
    }

    /** @return iterable<array{string}> */
    public static function badRanges(): iterable
    {
        yield from array_map(static fn (string $t): array => [$t], [
            '',
            ' ',
            '>>9',
            '>=',
            '9 ||',
            '|| 9',
            '>=9,,<10',
            '>=1.2.3.4',
            '>=1234567890',
            'dev-main',
            '>=9.0 as 8.0',
            '>=09.0',
            "8.0\x00",
            '>=8.0-beta.02',
            str_repeat('>=8.0 ', 100),
        ]);
    }
}
