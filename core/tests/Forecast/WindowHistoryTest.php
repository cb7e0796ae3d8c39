<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Forecast;

use JadeStep\Core\Forecast\PastWindow;
use JadeStep\Core\Forecast\WindowHistory;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class WindowHistoryTest extends TestCase
{
    /** @return array<string, mixed> */
    private static function build(string $version, string $released, ?string $until, string ...$of): array
    {
        $build = Sample::build($version, "B{$version}", [["{$released}T00:00:00Z", $until]]);
        $build['packages'] = array_map(
            static fn (string $id): array => ['sha256' => hash('sha256', $version.$id), 'hardwareIds' => [$id]]
                + $build['packages'][0],
            $of === [] ? ['FN7-2'] : $of,
        );

        return [
            'releasedAt' => "{$released}T00:00:00Z",
            'channel' => str_contains($version, 'beta') ? 'beta' : 'release',
        ] + $build;
    }

    /** @return iterable<string, array{list<array<string, mixed>>, array<string, string>}> when each is superseded */
    public static function lines(): iterable
    {
        $b = self::build(...);
        yield 'by the next of the major, whatever came out earlier; then from its own release on' => [
            [
                $b('8.6.0', '2026-03-01', null),
                $b('8.7.0', '2026-05-01', null),
                $b('9.0.0', '2026-04-01', null),
                $b('8.8.0', '2026-06-01', null),
            ],
            ['8.6.0' => '2026-05-01', '8.7.0' => '2026-06-01', '8.8.0' => '2026-06-01'],
        ];
        yield 'the last of a major by the first of the next, and the newest by none' => [
            [$b('8.7.0', '2026-05-01', null), $b('9.0.0', '2026-07-01', null), $b('9.1.0', '2026-08-01', null)],
            ['8.7.0' => '2026-07-01', '9.0.0' => '2026-08-01'],
        ];
        yield 'a release is not superseded by a beta, a beta is by both' => [
            [
                $b('8.7.0', '2026-05-01', null),
                $b('8.8.0-beta.1', '2026-05-10', null),
                $b('8.8.0-beta.2', '2026-05-20', null),
                $b('8.8.0', '2026-06-01', null),
            ],
            ['8.7.0' => '2026-06-01', '8.8.0-beta.1' => '2026-05-20', '8.8.0-beta.2' => '2026-06-01'],
        ];
        yield 'only by what there is for the same model' => [
            [
                $b('8.6.0', '2026-03-01', null, 'FN7-2', 'FN6-1'),
                $b('8.7.0', '2026-05-01', null, 'FN7-2'),
                $b('8.8.0', '2026-06-01', null, 'FN6-1'),
            ],
            ['8.6.0 FN7-2' => '2026-05-01', '8.6.0 FN6-1' => '2026-06-01'],
        ];
    }

    /**
     * @param  list<array<string, mixed>>  $builds
     * @param  array<string, string>  $superseded
     */
    #[DataProvider('lines')]
    public function test_what_takes_the_place_of_a_build(array $builds, array $superseded): void
    {
        $found = [];
        foreach (WindowHistory::of(Sample::almanac(Sample::catalogue($builds)))->windows as $w) {
            $day = substr(Rfc3339::format($w->supersededAt), 0, 10);
            $found[] = [(string) $w->build->version, $day];
        }

        $expected = array_map(
            static fn (string $name, string $day): array => [explode(' ', $name)[0], $day],
            array_keys($superseded),
            $superseded,
        );
        sort($expected);
        sort($found);
        self::assertSame($expected, $found);
    }

    public function test_packages_that_close_together_are_one_closing_and_others_are_their_own(): void
    {
        $together = self::build('8.6.0', '2026-03-01', '2026-06-01T00:00:00Z', 'FN7-2', 'FN6-1');
        $other = self::build('8.6.0', '2026-03-01', '2026-08-01T00:00:00Z', 'FN7L-1')['packages'];
        $next = self::build('8.7.0', '2026-05-01', null, 'FN7-2', 'FN6-1', 'FN7L-1');
        $history = WindowHistory::of(Sample::almanac(Sample::catalogue([
            ['packages' => [...$together['packages'], ...$other]] + $together,
            $next,
        ])));

        $lasted = array_map(
            static fn (PastWindow $w): array => [count($w->digests), $w->lastedAt(self::at('2026-11-20'))?->time],
            $history->windows,
        );
        self::assertSame([[2, 31.0], [1, 92.0]], $lasted);
    }

    /** @return iterable<string, array{string, array{float, bool}|null}> */
    public static function moments(): iterable
    {
        yield 'before it was superseded nothing is known' => ['2026-04-30', null];
        yield 'at the very moment neither' => ['2026-05-01', null];
        yield 'ten days later it is at least ten' => ['2026-05-11', [10.0, false]];
        yield 'on the last day it is still open' => ['2026-05-31', [30.0, false]];
        yield 'from its end on it is known' => ['2026-06-01', [31.0, true]];
        yield 'and stays so' => ['2027-06-01', [31.0, true]];
    }

    /** @param  array{float, bool}|null  $lasted */
    #[DataProvider('moments')]
    public function test_how_long_a_window_lasted_as_it_was_known_at_a_moment(string $moment, ?array $lasted): void
    {
        $known = self::only('2026-06-01T00:00:00Z')->lastedAt(self::at($moment));

        self::assertSame($lasted, $known === null ? null : [$known->time, $known->ended]);
    }

    public function test_an_open_window_is_known_for_no_longer_than_the_vendors_word_is_good(): void
    {
        // the sample's word is good until 20 November
        $known = self::only(null)->lastedAt(self::at('2027-05-01'));

        self::assertNotNull($known);
        self::assertSame([203.83, false], [round($known->time, 2), $known->ended]);
    }

    public function test_what_closed_before_it_was_superseded_tells_nothing(): void
    {
        self::assertNull(self::only('2026-04-20T00:00:00Z')->lastedAt(self::at('2026-11-20')));
    }

    private static function only(?string $until): PastWindow
    {
        return WindowHistory::of(Sample::almanac(Sample::catalogue([
            self::build('8.6.0', '2026-03-01', $until),
            self::build('8.7.0', '2026-05-01', null),
        ])))->windows[0];
    }

    private static function at(string $day): \DateTimeImmutable
    {
        return Rfc3339::parse("{$day}T00:00:00Z");
    }
}
