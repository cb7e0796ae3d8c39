<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Route\Timetable;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Rules of routes, each with what is on either side of it, worked out by hand. */
final class PlanRulesTest extends TestCase
{
    private const OPEN = [['2026-05-04T17:00:00Z', null]];

    private const CLOSED = [['2026-05-04T17:00:00Z', '2026-09-01T00:00:00Z']];

    /**
     * Pair and recovery expect 13/6 + 14/6 minutes; fetching 366 MB at 6.1 MB/s takes a minute, of which 6.4/6 are
     * expected. So a first permit is asked for after 4.5 + 1.0667 × the number of packages, and each further one after
     * 10.5 + 6.6667 + 2.3333 minutes more.
     */
    public function test_the_packages_of_all_legs_are_fetched_before_the_first_permit(): void
    {
        $legs = self::plan(self::twoLegs(null, null))['routes'][0]['legs'];

        self::assertSame([6.6, 26.1], array_column($legs, 'startsAfterMinutes'));
    }

    /** @param  list<string>  $ends  of the routes' last legs */
    #[DataProvider('windowsOfTwoLegs')]
    public function test_each_leg_is_held_against_the_time_of_its_permit(?string $one, ?string $two, array $ends): void
    {
        $plan = self::plan(self::twoLegs($one, $two), ['goal' => ['newestInMajor' => 8]]);

        self::assertSame($ends, array_values(array_unique(array_map(
            static fn (array $r): string => implode(' ', array_column(array_column($r['legs'], 'to'), 'build')),
            $plan['routes'],
        ))));
    }

    /** @return iterable<string, array{?string, ?string, list<string>}> */
    public static function windowsOfTwoLegs(): iterable
    {
        yield 'both open' => [null, null, ['8F190 8G210']];
        // 6 min 38 s until the first permit of two legs, 5 min 34 s where it is the only one
        yield 'the first ends after its permit' => ['2026-11-20T09:06:39Z', null, ['8F190 8G210']];
        yield 'the first ends before it, but after a permit for it alone' => [
            '2026-11-20T09:06:37Z',
            null,
            ['8F190'],
        ];
        yield 'the first ends before any permit' => ['2026-11-20T09:05:33Z', null, []];
        // 26 min 8 s until the second
        yield 'the second ends after its permit' => [null, '2026-11-20T09:26:09Z', ['8F190 8G210']];
        yield 'the second ends at its permit' => [null, '2026-11-20T09:26:08Z', ['8F190']];
    }

    public function test_the_latest_start_counts_every_package(): void
    {
        $one = self::plan(self::twoLegs('2026-11-20T18:00:00Z', null))['routes'][0]['latestStart'];
        $two = self::plan(self::twoLegs(null, '2026-11-20T18:00:00Z'))['routes'][0]['latestStart'];

        // By hand: deviations of pairing 0.5, recovery 4/6, a fetch 0.1 each, an install 7/6, waking 8/6. Two fetches:
        // √(0.25 + 0.4444 + 0.02) = 0.8453, so 6.6333 + 1.6906 minutes, 499.4 seconds. The second permit: √(0.7144 +
        // 1.3611 + 1.7778 + 0.4444) = 2.0730, so 26.1333 + 4.1460 minutes, 1816.8 seconds.
        self::assertSame(['2026-11-20T17:51:40Z', '2026-11-20T17:29:43Z'], [$one, $two]);
    }

    public function test_what_an_install_raises_shuts_what_is_below_it(): void
    {
        $builds = static fn (int $candidate, int $release): array => [
            Sample::build('8.6.0', '8F190', self::OPEN, ['rollbackIndex' => $candidate]),
            Sample::build('8.7.0', '8G210', self::OPEN, [
                'rollbackIndex' => $release,
                'eraseInstall' => false,
                'inPlaceFrom' => '>=8.6 <8.7',
            ]),
        ];
        $end = static fn (array $plan): string => array_reverse($plan['routes'][0]['legs'])[0]['to']['build'];

        foreach ([3, null] as $counter) {
            $device = ['rollbackCounter' => $counter];
            self::assertSame('8G210', $end(self::plan($builds(4, 4), [], $device)));
            self::assertSame('8F190', $end(self::plan($builds(5, 4), [], $device)));
        }
        self::assertSame([], self::plan($builds(2, 2), [], ['rollbackCounter' => 3])['routes']);
        self::assertNotSame([], self::plan($builds(0, 0), [], ['rollbackCounter' => null])['routes']);
    }

    /**
     * @param  array<string, mixed>  $goal
     * @param  list<string>  $signed  of 8.5, 8.6, 8.7, 9.0, 9.3 (what is installed is 9.0), 9.4, 10.0 and 11.0
     */
    #[DataProvider('nearests')]
    public function test_the_nearest(array $goal, array $signed, ?string $nearest): void
    {
        $builds = [];
        foreach (['8.5', '8.6', '8.7', '9.0', '9.3', '9.4', '10.0', '11.0'] as $i => $version) {
            $builds[] = Sample::build("{$version}.0", "B{$version}", in_array($version, $signed, true)
                ? self::OPEN
                : self::CLOSED, ['releasedAt' => '2026-0'.($i + 1).'-01T00:00:00Z']);
        }
        $builds[] = Sample::build('9.2.0-beta.1', 'B9.2', self::OPEN, ['channel' => 'beta']);
        $plan = self::plan($builds, ['goal' => $goal], ['version' => '9.0.0', 'build' => 'B9.0']);

        self::assertSame([], $plan['routes']);
        self::assertSame($nearest, $plan['nearest']['build'] ?? null);
    }

    /** @return iterable<string, array{array<string, mixed>, list<string>, ?string}> */
    public static function nearests(): iterable
    {
        yield 'down: the lowest on the way' => [['exact' => '8.5.0'], ['8.6', '8.7', '9.3'], 'B8.6'];
        yield 'down: else the highest beyond' => [['exact' => '8.7.0'], ['8.5', '8.6', '9.3'], 'B8.6'];
        yield 'down: what lies the other way is not near' => [['exact' => '8.7.0'], ['9.3', '10.0'], null];
        yield 'up: the highest on the way' => [['exact' => '10.0.0'], ['8.7', '9.3', '9.4', '11.0'], 'B9.4'];
        yield 'up: else the lowest beyond' => [['exact' => '9.4.0'], ['8.7', '10.0', '11.0'], 'B10.0'];
        yield 'up: a beta on the way is none' => [['exact' => '9.3.0'], ['8.7'], null];
        yield 'a major below: the lowest on the way is what is left of the majors between' => [
            ['newestInMajor' => 7],
            ['8.5', '8.7', '9.3'],
            'B8.5',
        ];
        yield 'a major above' => [['newestInMajor' => 11], ['8.5', '9.3', '10.0'], 'B10.0'];
        yield 'below a version' => [['newestBelow' => '8.5.0'], ['8.6', '8.7'], 'B8.6'];
        yield 'before a date' => [['newestBefore' => '2026-01-01T00:00:00Z'], ['8.6', '8.7', '9.4'], 'B8.6'];
        yield 'the goal is what is installed' => [['exact' => '9.0.0'], ['8.7', '9.3'], null];
    }

    public function test_a_goal_that_is_installed_is_said_to_be_that_and_nothing_else(): void
    {
        $builds = [Sample::build('9.3.0', '9D55', self::CLOSED, ['rollbackIndex' => 1])];
        $plan = self::plan($builds, ['goal' => ['exact' => '9.3.0']]);

        self::assertSame([['code' => 'same-build']], $plan['rejected'][0]['reasons']);
        $goals = ['9.3.0' => true, '9.2.0' => false];
        foreach ($goals as $version => $isInstalled) {
            $situation = Sample::read(Sample::situation([], ['goal' => ['exact' => $version]]));
            $planner = new Planner(Sample::almanac(Sample::catalogue($builds)));
            self::assertSame($isInstalled, $planner->plan($situation)->isInstalled());
        }
        self::assertNull($plan['nearest']);
    }

    /** @param  array<string, mixed>  $held */
    #[DataProvider('majors')]
    public function test_steps_down_are_counted_from_what_the_backup_was_made_on(
        array $held,
        string $treatment,
        int $majors,
        bool $unproven,
    ): void {
        $base = self::withHeld($held)['base'];

        self::assertSame([$treatment, $majors, $unproven], [
            $base['treatment'],
            $base['majorsDown'],
            $base['unproven'],
        ]);
    }

    /** @return iterable<string, array{array<string, mixed>, string, int, bool}> onto 8.7 */
    public static function majors(): iterable
    {
        $made = static fn (string $on, string $declared): array => ['madeOn' => $on, 'declaredVersion' => $declared];
        yield 'older' => [$made('7.9.0', '7.9.0'), 'as-is', 0, false];
        yield 'the same version' => [$made('8.7.0', '8.7.0'), 'as-is', 0, false];
        yield 'newer within the major' => [$made('8.8.0', '8.8.0'), 'lowered', 0, false];
        yield 'one major' => [$made('9.3.0', '9.3.0'), 'lowered', 1, false];
        yield 'two majors' => [$made('10.0.0', '10.0.0'), 'lowered', 2, true];
        yield 'three majors, lowered by two before' => [$made('11.0.0', '9.0.0'), 'lowered', 3, true];
        yield 'two majors, lowered all the way before' => [$made('10.0.0', '8.7.0'), 'as-is', 2, true];
        yield 'one major, lowered all the way before' => [$made('9.3.0', '8.0.0'), 'as-is', 1, false];
    }

    /**
     * Common practice, no source: a cloud return takes 5 minutes to 2 hours, and one of a usual phone was measured at
     * just under 13 minutes. At 6.1 MB/s over the line.
     *
     * @param  array{float, float, float}  $minutes
     */
    #[DataProvider('cloudReturns')]
    public function test_a_cloud_return_takes_its_own_time(int $bytes, array $minutes): void
    {
        $situation = Sample::read(Sample::situation());
        $steps = array_column((new Timetable($situation))->bySteps([], $bytes, true), null, 'step');
        $put = $steps['put-back']->minutes;

        self::assertEqualsWithDelta($minutes, [$put->low, $put->likely, $put->high], 0.01);
    }

    /** @return iterable<string, array{int, array{float, float, float}}> */
    public static function cloudReturns(): iterable
    {
        yield 'next to nothing' => [3_000_000, [5.0, 5.0, 5.0]];
        yield 'a little' => [1_500_000_000, [5.0, 5.0, 6.15]];
        yield 'a usual phone' => [4_700_000_000, [11.56, 12.84, 19.26]];
        yield 'very much' => [90_000_000_000, [120.0, 120.0, 120.0]];
    }

    public function test_what_only_an_encrypted_backup_carries_is_missing_from_any_plain_one(): void
    {
        $reason = static fn (bool $encrypted, string $where = 'bag'): ?string => self::withHeld(
            ['encrypted' => $encrypted, 'passphraseProven' => true, 'where' => $where, 'kinds' => ['photos']],
        )['kinds'][1]['reason'];

        self::assertSame('encrypted-only', $reason(false));
        self::assertSame('not-in-base', $reason(true));
        self::assertSame('not-in-base', $reason(true, 'cloud'));
    }

    /**
     * @param  array<string, mixed>  $device
     * @param  list<string|null>  $bases  of the routes
     */
    #[DataProvider('plannedBackups')]
    public function test_the_planned_backup_is_a_base_while_the_data_is_there(
        string $backup,
        array $device,
        array $bases,
    ): void {
        $plan = self::plan(
            [Sample::build('8.7.0', '8G210', self::OPEN)],
            ['planned' => ['backup' => $backup, 'sideExports' => []]],
            $device + ['kinds' => [Sample::stock('photos')]],
        );

        self::assertSame($bases, array_column(array_column($plan['routes'], 'base'), 'backup'));
    }

    /** @return iterable<string, array{string, array<string, mixed>, list<string|null>}> */
    public static function plannedBackups(): iterable
    {
        yield 'plain' => ['plain', [], ['planned', null]];
        yield 'encrypted' => ['encrypted', [], ['planned', null]];
        yield 'none' => ['none', [], [null]];
        yield 'the data is gone' => ['plain', ['dataOnDevice' => false], [null]];
    }

    public function test_the_planned_backup_brings_what_the_device_holds(): void
    {
        $kinds = [Sample::stock('photos'), ['items' => 0, 'bytes' => 0] + Sample::stock('notes')];
        $route = self::plan([Sample::build('8.7.0', '8G210', self::OPEN)], [], ['kinds' => $kinds])['routes'][0];

        self::assertSame(['base', null], array_column($route['kinds'], 'from'));
        self::assertSame('not-in-base', $route['kinds'][1]['reason']);
    }

    public function test_a_backup_takes_as_long_as_what_it_carries(): void
    {
        $gigabytes = static fn (string $kind, int $n): array => ['bytes' => $n * 1_000_000_000] + Sample::stock($kind);
        $kinds = [$gigabytes('photos', 9), $gigabytes('health', 18), $gigabytes('payment-cards', 27)];
        $minutes = static function (string $backup) use ($kinds): array {
            $planned = ['planned' => ['backup' => $backup, 'sideExports' => []]];
            $plan = self::plan([Sample::build('8.7.0', '8G210', self::OPEN)], $planned, ['kinds' => $kinds]);

            return array_column(array_column($plan['routes'][0]['steps'], 'minutes', 'step'), 'likely');
        };

        // at 30 MB/s 9 GB take 5 minutes and 27 GB 15; read back at 200 MB/s 0.75 and 2.25
        self::assertSame([5.0, 0.8], array_slice($minutes('plain'), 1, 2));
        self::assertSame([15.0, 2.3], array_slice($minutes('encrypted'), 1, 2));
        self::assertSame([0.0, 0.0], array_slice($minutes('none'), 1, 2));
    }

    /**
     * @param  list<array{string, string}>  $carried  by which vendors' catalogues: fresh or stale, signed or closed
     * @param  list<string>  $reasons
     */
    #[DataProvider('carriers')]
    public function test_staleness_follows_the_catalogue_that_carries_the_package(array $carried, array $reasons): void
    {
        $catalogues = [Sample::catalogue([Sample::build('9.3.0', '9D55', self::OPEN)])];
        foreach ($carried as $i => [$age, $state]) {
            $build = Sample::build('8.7.0', '8G210', $state === 'signed' ? self::OPEN : self::CLOSED);
            $catalogues[] = Sample::catalogue([$build], [
                'vendor' => ['id' => "v{$i}", 'name' => "Vendor {$i}"],
                'models' => [],
                'freshUntil' => $age === 'fresh' ? '2026-11-20T20:00:00Z' : '2026-11-20T08:59:59Z',
            ]);
        }
        $plan = (new Planner(Sample::almanac(...$catalogues)))->plan(Sample::read(Sample::situation()));

        self::assertSame(
            $reasons,
            array_column(PlanDocument::write($plan)['rejected'][0]['reasons'] ?? [], 'code'),
        );
        self::assertSame($reasons === [], $plan->isReachable());
    }

    /** @return iterable<string, array{list<array{string, string}>, list<string>}> */
    public static function carriers(): iterable
    {
        yield 'a fresh one' => [[['fresh', 'signed']], []];
        yield 'a stale one, though another vendor’s is fresh' => [[['stale', 'signed']], ['almanac-stale']];
        yield 'a stale and a fresh one' => [[['stale', 'signed'], ['fresh', 'signed']], []];
        yield 'what a stale one calls signed is not' => [[['stale', 'signed'], ['fresh', 'closed']], ['window-closed']];
        yield 'two stale ones' => [[['stale', 'signed'], ['stale', 'closed']], ['almanac-stale']];
        yield 'two fresh ones, one of them signed' => [[['fresh', 'closed'], ['fresh', 'signed']], []];
    }

    public function test_what_only_a_stale_catalogue_says_is_never_signed(): void
    {
        $build = Sample::build('8.7.0', '8G210', self::OPEN);
        $held = Sample::almanac(Sample::catalogue([$build], ['freshUntil' => Sample::NOW]))->builds('tarn')[0];
        $now = Rfc3339::parse(Sample::NOW);

        self::assertNotNull($held->signedAt('FN7-2', $now));
        self::assertNull($held->signedAt('FN7-2', $now->modify('+1 second')));
    }

    public function test_of_several_packages_the_one_whose_window_ends_last_is_taken(): void
    {
        $build = Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', '2026-11-21T00:00:00Z']]);
        $long = Sample::build('8.7.0', '8G210-long', [['2026-05-04T17:00:00Z', '2026-11-22T00:00:00Z']]);
        $build['packages'][] = $long['packages'][0];
        $leg = self::plan([$build])['routes'][0]['legs'][0];

        self::assertSame(['fn7_8G210-long.fwp', '2026-11-22T00:00:00Z'], [
            $leg['package']['fileName'],
            $leg['windowEnds'],
        ]);
    }

    /**
     * @param  array<string, mixed>  $held
     * @return array<string, mixed> the route that puts it back
     */
    private static function withHeld(array $held): array
    {
        $plan = self::plan([Sample::build('8.7.0', '8G210', self::OPEN)], [
            'planned' => ['backup' => 'none', 'sideExports' => []],
            'backups' => [
                $held + [
                    'id' => 'b-1',
                    'where' => 'bag',
                    'takenAt' => '2026-11-20T08:30:00Z',
                    'madeOn' => '8.7.0',
                    'declaredVersion' => '8.7.0',
                    'encrypted' => false,
                    'passphraseProven' => false,
                    'verified' => true,
                    'kinds' => ['photos', 'notes'],
                ],
            ],
        ], ['kinds' => [Sample::stock('photos'), Sample::stock('health')]]);

        $is = static fn (array $route): bool => $route['base']['backup'] === 'b-1';

        return array_values(array_filter($plan['routes'], $is))[0];
    }

    /** @return list<array<string, mixed>> a leg that erases and one in place, each with the end of its window */
    private static function twoLegs(?string $one, ?string $two): array
    {
        $builds = [
            Sample::build('8.6.0', '8F190', [['2026-05-04T17:00:00Z', $one]]),
            Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', $two]], [
                'eraseInstall' => false,
                'inPlaceFrom' => '>=8.6 <8.7',
            ]),
        ];
        $builds[0]['packages'][0]['bytes'] = $builds[1]['packages'][0]['bytes'] = 366_000_000;

        return $builds;
    }

    /**
     * @param  list<array<string, mixed>>  $builds
     * @param  array<string, mixed>  $more
     * @param  array<string, mixed>  $device
     * @return array<string, mixed>
     */
    private static function plan(array $builds, array $more = [], array $device = []): array
    {
        $situation = Sample::read(Sample::situation($device, $more));

        return PlanDocument::write((new Planner(Sample::almanac(Sample::catalogue($builds))))->plan($situation));
    }
}
