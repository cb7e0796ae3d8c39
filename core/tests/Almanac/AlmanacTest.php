<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Almanac;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Model;
use JadeStep\Core\Almanac\WindowLane;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class AlmanacTest extends TestCase
{
    /** @param  list<array{string, string|null}>  $windows */
    #[DataProvider('lanes')]
    public function test_a_lane_says_in_words_what_its_windows_mean(
        array $windows,
        string $now,
        string $state,
        string $words,
    ): void {
        $almanac = Sample::almanac(Sample::catalogue([Sample::build('8.7.0', '8G210', $windows)]));

        $lane = WindowLane::forModel($almanac, 'FN7-2', Rfc3339::parse($now))[0];

        self::assertSame([$state, $words], [$lane->state->value, $lane->words]);
    }

    /** @return iterable<string, array{list<array{string, string|null}>, string, string, string}> */
    public static function lanes(): iterable
    {
        $now = Sample::NOW;
        yield 'open' => [
            [['2026-05-04T17:00:00Z', null]],
            $now,
            'signed',
            'Signed now, since 2026-05-04T17:00:00Z; no end is known.',
        ];
        yield 'open, with a known end' => [
            [['2026-05-04T17:00:00Z', '2026-12-14T18:00:00Z']],
            $now,
            'end-announced',
            'Signed now, since 2026-05-04T17:00:00Z; the end is announced for 2026-12-14T18:00:00Z.',
        ];
        yield 'closed' => [
            [['2026-05-04T17:00:00Z', '2026-09-01T00:00:00Z']],
            $now,
            'closed',
            'Closed since 2026-09-01T00:00:00Z.',
        ];
        yield 'closed, and opening again' => [
            [['2026-05-04T17:00:00Z', '2026-09-01T00:00:00Z'], ['2026-12-01T00:00:00Z', null]],
            $now,
            'not-open-yet',
            'Closed since 2026-09-01T00:00:00Z. Opens on 2026-12-01T00:00:00Z.',
        ];
        yield 'not open yet' => [
            [['2026-12-01T00:00:00Z', null]], $now, 'not-open-yet', 'Opens on 2026-12-01T00:00:00Z.',
        ];
        yield 'never signed' => [[], $now, 'closed', 'Never signed for this model.'];
        yield 'stale: an open window is not called signed' => [
            [['2026-05-04T17:00:00Z', null]],
            '2026-11-21T09:00:00Z',
            'unknown',
            'Not known: the almanac is stale since 2026-11-20T20:00:00Z.',
        ];
    }

    public function test_a_lane_is_there_only_for_builds_with_a_package_for_the_model(): void
    {
        $almanac = Sample::almanac(Sample::catalogue([Sample::build('8.7.0', '8G210', [])]));

        self::assertSame([], WindowLane::forModel($almanac, 'FN7-1', Rfc3339::parse(Sample::NOW)));
        self::assertSame([], WindowLane::forModel($almanac, 'nobody', Rfc3339::parse(Sample::NOW)));
    }

    public function test_a_catalogue_knows_when_the_clock_alone_changes_what_it_says(): void
    {
        $twice = ['2026-05-04T17:00:00Z', '2026-07-13T17:00:00Z'];
        $catalogue = Sample::almanac(
            Sample::catalogue(
                [Sample::build('8.7.0', '8G210', [$twice]), Sample::build('8.6.0', '8F190', [$twice])],
                ['freshUntil' => '2026-06-01T00:00:00Z'],
            ),
        )->catalogues[0];

        self::assertSame(
            ['2026-05-04T17:00:00Z', '2026-06-01T00:00:00Z', '2026-07-13T17:00:00Z'],
            array_map(static fn (int $t): string => gmdate('Y-m-d\TH:i:s\Z', $t), $catalogue->turns()),
        );
    }

    public function test_of_two_catalogues_of_a_vendor_the_later_counts_in_whatever_order_they_come(): void
    {
        $old = Sample::catalogue([Sample::build('8.6.0', '8F190', [])], ['issuedAt' => '2026-11-19T08:00:00Z']);
        $new = Sample::catalogue([Sample::build('8.7.0', '8G210', [])]);
        $labels = static fn (Almanac $a): array => array_map(
            static fn (Build $b): string => $b->build,
            $a->builds('tarn'),
        );

        self::assertSame(
            [['8G210'], ['8G210']],
            [$labels(Sample::almanac($old, $new)), $labels(Sample::almanac($new, $old))],
        );
    }

    public function test_of_two_catalogues_of_one_moment_the_one_that_was_there_counts(): void
    {
        $first = Sample::catalogue([Sample::build('8.6.0', '8F190', [])]);
        $second = Sample::catalogue([Sample::build('8.7.0', '8G210', [])]);

        self::assertSame('8F190', Sample::almanac($first, $second)->builds('tarn')[0]->build);
    }

    public function test_builds_come_highest_first_and_a_re_release_by_its_date(): void
    {
        $almanac = Sample::almanac(
            Sample::catalogue([
                Sample::build('8.6.0', '8F190', []),
                Sample::build('8.7.0', '8G210', [], ['releasedAt' => '2026-05-04T17:00:00Z']),
                Sample::build('8.7.0', '8G215', [], ['releasedAt' => '2026-05-18T17:00:00Z']),
                Sample::build('9.0.0-rc.1', '9A300', [], ['channel' => 'candidate']),
            ]),
        );

        self::assertSame(
            ['9A300', '8G215', '8G210', '8F190'],
            array_map(static fn (Build $b): string => $b->build, $almanac->builds('tarn')),
        );
    }

    public function test_a_name_on_the_box_stands_for_all_its_variants(): void
    {
        $almanac = Sample::almanac(Sample::catalogue([]));

        self::assertSame(
            ['FN7-1', 'FN7-2'],
            array_map(static fn (Model $m): string => $m->hardwareId, $almanac->modelsNamed('fenn 7')),
        );
        self::assertSame([], $almanac->modelsNamed('Fenn'));
        self::assertSame(['Atlantic', null], [$almanac->model('FN7-2')?->variant, $almanac->model('FN9')?->variant]);
    }
}
