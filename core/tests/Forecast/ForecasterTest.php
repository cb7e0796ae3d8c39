<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Forecast;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Forecast\Calibration;
use JadeStep\Core\Forecast\Chance;
use JadeStep\Core\Forecast\Forecast;
use JadeStep\Core\Forecast\Forecaster;
use JadeStep\Core\Forecast\Horizon;
use JadeStep\Core\Forecast\Judged;
use JadeStep\Core\Forecast\Pool;
use JadeStep\Core\Forecast\Replay;
use JadeStep\Core\Forecast\Silence;
use JadeStep\Core\Forecast\WindowHistory;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * Each build of these lines comes out 30 days after the one before it, the last of them on 1 November; what is asked
 * for is the window of the last but one, superseded on 1 November, on the 11th.
 */
final class ForecasterTest extends TestCase
{
    private const NOW = '2026-11-11T00:00:00Z';

    /**
     * @param  list<int|null>  $days  for which each stayed signed after the next came out, the oldest first
     * @param  array<string, mixed>  $more
     * @return list<array<string, mixed>>
     */
    private static function line(array $days, array $more = []): array
    {
        $builds = [];
        $first = Rfc3339::parse('2026-11-01T00:00:00Z')->modify('-'.(30 * count($days)).' days');
        foreach ([...$days, null] as $i => $open) {
            $released = $first->modify('+'.(30 * $i).' days');
            $until = $open === null ? null : Rfc3339::format($released->modify('+'.(30 + $open).' days'));
            $label = ($more['osLine'] ?? 'tarn').$i;
            $builds[] = $more + ['releasedAt' => Rfc3339::format($released)]
                + Sample::build("8.{$i}.0", $label, [[Rfc3339::format($released), $until]]);
        }

        return $builds;
    }

    private static function asked(Almanac $almanac, string $label, string $now = self::NOW): Forecast|Silence
    {
        foreach (['tarn', 'wear'] as $line) {
            foreach ($almanac->builds($line) as $build) {
                if ($build->build === $label) {
                    return (new Forecaster(WindowHistory::of($almanac), Rfc3339::parse($now)))
                        ->ofPackage($build, $build->packages[0]);
                }
            }
        }
        self::fail("There is no build {$label}.");
    }

    private static function told(Forecast|Silence $forecast): Forecast
    {
        return $forecast instanceof Forecast ? $forecast : self::fail($forecast->words());
    }

    public function test_the_chance_of_a_window_rests_on_those_that_got_as_old(): void
    {
        $forecast = self::told(self::asked(Sample::almanac(Sample::catalogue(
            self::line([5, 8, 12, 20, 20, 40, null]),
        )), 'tarn6'));

        // it is ten days old; of the six that closed, four got older: 12, 20, 20 and 40 days
        self::assertSame([10.0, Pool::LineAndChannel, 6, 4], [
            $forecast->age, $forecast->pool, $forecast->closings, $forecast->laterClosings(),
        ]);
        $chances = array_map(
            static fn (string $day): Chance => $forecast->chanceAt(Rfc3339::parse("2026-11-{$day}T00:00:00Z")),
            ['11', '12', '13', '20', '21', '30'],
        );
        self::assertSame([1.0, 1.0, 0.75, 0.75, 0.25, 0.25], array_column($chances, 'share'));
        self::assertSame('2026-11-21T00:00:00Z', Rfc3339::formatOrNull($forecast->halfClosedBy()));
        self::assertSame([false, false, false, false, true, true], array_map(
            static fn (Chance $c): bool => $c->isLittle(),
            $chances,
        ));
        self::assertSame(
            'It rests on 6 closings of Tarn releases, 4 of them at a later age than this window has.',
            $forecast->restsOn(),
        );
        self::assertSame(
            [['2026-11-11', 1.0], ['2026-11-13', 0.75], ['2026-11-21', 0.25], ['2026-12-11', 0.0]],
            array_map(
                static fn (array $p): array => [$p[0]->format('Y-m-d'), $p[1]],
                $forecast->points(),
            ),
        );
        self::assertTrue($forecast->chanceAt(Rfc3339::parse('2027-01-01T00:00:00Z'))->atMost);
    }

    public function test_a_window_that_is_still_open_counts_as_at_least_so_long(): void
    {
        // the fourth, superseded on 2 October, is open after 40 days: five closed, two of them later than ten days
        $builds = self::line([5, 8, 9, 20, 40, null, null]);
        $forecast = self::told(self::asked(Sample::almanac(Sample::catalogue($builds)), 'tarn6'));

        self::assertSame(2, $forecast->laterClosings());
        self::assertEqualsWithDelta(2 / 3, $forecast->chanceAt(Rfc3339::parse('2026-11-22T00:00:00Z'))->share, 1e-12);
        self::assertSame('2026-12-11T00:00:00Z', Rfc3339::formatOrNull($forecast->halfClosedBy()));
    }

    /** @return iterable<string, array{list<array<string, mixed>>, string, Silence|Pool}> */
    public static function pools(): iterable
    {
        $beta = ['channel' => 'beta'];
        yield 'five closings of the line and channel are enough' => [
            self::line([20, 20, 20, 20, 20, null]), 'tarn5', Pool::LineAndChannel,
        ];
        yield 'four are not, and there is nothing else of the vendor' => [
            self::line([20, 20, 20, 20, null]), 'tarn4', Silence::TooFewClosings,
        ];
        yield 'the channels of a line together have enough' => [
            [...self::line([20, 20, 20, null]), ...array_map(
                static fn (array $b): array => [
                    'version' => "7.{$b['version'][2]}.0-beta.1",
                    'build' => "b{$b['build']}",
                ] + $b,
                self::line([20, 20, 20], $beta),
            )],
            'tarn3',
            Pool::Line,
        ];
        yield 'another line of the vendor has what is missing' => [
            [...self::line([20, 20, null]), ...self::line([20, 20, 20, 20, 20], ['osLine' => 'wear'])],
            'tarn2',
            Pool::Vendor,
        ];
        yield 'it is older than any that was seen to close' => [
            self::line([5, 8, 9, 10, 10, null]), 'tarn5', Silence::OlderThanAny,
        ];
        yield 'the newest is not superseded' => [
            self::line([20, 20, 20, 20, 20, null]), 'tarn6', Silence::NotSuperseded,
        ];
        yield 'what is closed has no chance' => [self::line([20, 20, 20, 20, 20, null]), 'tarn4', Silence::NotOpen];
        yield 'an end that is known is not estimated' => [
            self::line([20, 20, 20, 20, 20, 30]), 'tarn5', Silence::EndAnnounced,
        ];
    }

    /** @param  list<array<string, mixed>>  $builds */
    #[DataProvider('pools')]
    public function test_which_closings_are_looked_back_on(array $builds, string $label, Silence|Pool $expected): void
    {
        $forecast = self::asked(Sample::almanac(Sample::catalogue($builds)), $label);

        self::assertSame($expected, $forecast instanceof Forecast ? $forecast->pool : $forecast);
    }

    public function test_another_vendor_has_no_say(): void
    {
        $other = Sample::catalogue(
            self::line([20, 20, 20, 20, 20, 20], ['osLine' => 'lantern']),
            ['vendor' => ['id' => 'osterly', 'name' => 'Osterly']],
        );
        $almanac = Sample::almanac(Sample::catalogue(self::line([20, 20, null])), $other);

        self::assertSame(Silence::TooFewClosings, self::asked($almanac, 'tarn2'));
    }

    public function test_nothing_is_said_where_the_almanac_is_stale(): void
    {
        $almanac = Sample::almanac(Sample::catalogue(self::line([20, 20, 20, 20, 20, null])));

        self::assertSame(Silence::NotKnown, self::asked($almanac, 'tarn5', '2026-11-25T00:00:00Z'));
    }

    public function test_a_chance_is_never_rounded_to_certainty(): void
    {
        $at = Rfc3339::parse(self::NOW);
        $words = array_map(
            static fn (array $c): string => (new Chance($c[0], null, $c[1], $at))->words(),
            [[0.0, false], [0.001, false], [0.4949, false], [0.999, false], [1.0, false], [0.1, true]],
        );

        self::assertSame(
            ['0 in 100 so far', '1 in 100', '49 in 100', '99 in 100', '100 in 100 so far', 'at most 10 in 100'],
            $words,
        );
    }

    public function test_the_calibration_holds_what_was_said_against_what_happened(): void
    {
        $judged = [new Judged(0.9, true), new Judged(0.8, true), new Judged(1.0, false), new Judged(0.1, false)];
        $calibration = Calibration::of($judged);

        // (0.01 + 0.04 + 1 + 0.01) / 4 against 4 × 0.25 / 4
        self::assertEqualsWithDelta(0.265, $calibration->score, 1e-12);
        self::assertEqualsWithDelta(0.25, $calibration->baseScore, 1e-12);
        self::assertSame([4, 0.5], [$calibration->told, $calibration->baseRate]);
        self::assertSame(
            [[1, 0, 0.1], [0, 0, null], [0, 0, null], [0, 0, null], [3, 2, 0.9]],
            array_map(
                static fn ($b): array => [$b->told, $b->held, $b->said === null ? null : round($b->said, 12)],
                $calibration->bands,
            ),
        );
        self::assertNull(Calibration::of([])->score);
    }

    public function test_the_replay_knows_no_more_than_was_known(): void
    {
        $history = WindowHistory::of(Sample::almanac(Sample::catalogue(
            self::line([20, 20, 20, 20, 20, 20, 20, 20]),
        )));
        $judged = Replay::judged($history, Horizon::Week, Rfc3339::parse(self::NOW));

        // nothing was told before five had closed; from then on all was clear: who is younger than 13 days holds
        self::assertNotSame([], $judged);
        foreach ($judged as $one) {
            self::assertSame($one->held ? 1.0 : 0.0, $one->chance);
        }
        self::assertSame(0.0, Calibration::of($judged)->score);
        $fewer = WindowHistory::of(Sample::almanac(Sample::catalogue(self::line([20, 20, 20, 20, null]))));
        self::assertSame([], Replay::judged($fewer, Horizon::Week, Rfc3339::parse(self::NOW)));
    }
}
