<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Exchange\Format;
use JadeStep\Core\Exchange\Gate;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PlannerTest extends TestCase
{
    private const OPEN = [['2026-05-04T17:00:00Z', null]];

    private const CLOSED = [['2026-05-04T17:00:00Z', '2026-09-01T00:00:00Z']];

    /** @return list<array<string, mixed>> */
    private static function line(): array
    {
        return [
            Sample::build('8.5.0', '8E172', self::CLOSED, ['releasedAt' => '2026-01-19T17:00:00Z']),
            Sample::build('8.6.0', '8F190', self::OPEN, ['releasedAt' => '2026-03-16T17:00:00Z']),
            Sample::build('8.7.0', '8G210', self::OPEN, ['storeSchemas' => ['messages' => 14]]),
            Sample::build('9.0.0-rc.1', '9A300', self::OPEN, [
                'channel' => 'candidate',
                'releasedAt' => '2026-06-20T17:00:00Z',
            ]),
            Sample::build('9.3.0', '9D55', self::OPEN, [
                'releasedAt' => '2026-10-19T17:00:00Z',
                'storeSchemas' => ['messages' => 15],
            ]),
            Sample::build('10.0.0-beta.2', '10A5120', self::OPEN, [
                'channel' => 'beta',
                'releasedAt' => '2026-11-09T17:00:00Z',
            ]),
        ];
    }

    /**
     * @param  array<string, mixed>  $goal
     * @param  list<string>  $rejected
     */
    #[DataProvider('goals')]
    public function test_ends_on_the_newest_that_the_goal_admits(
        array $goal,
        ?string $end,
        array $rejected,
        ?string $nearest,
    ): void {
        $plan = $this->plan(Sample::situation([], ['goal' => $goal]));

        self::assertSame(
            [$end, $rejected, $nearest],
            [
                $plan['routes'][0]['legs'][0]['to']['version'] ?? null,
                array_column($plan['rejected'], 'version'),
                $plan['nearest']['version'] ?? null,
            ],
        );
        self::assertSame($end === null ? 'blocked' : 'reachable', $plan['verdict']);
    }

    /** @return iterable<string, array{array<string, mixed>, ?string, list<string>, ?string}> */
    public static function goals(): iterable
    {
        yield 'newest in a major' => [['newestInMajor' => 8], '8.7.0', ['8.5.0'], null];
        yield 'exactly one version' => [['exact' => '8.6.0'], '8.6.0', [], null];
        yield 'newest below' => [['newestBelow' => '8.7.0'], '8.6.0', ['8.5.0'], null];
        yield 'released on the very date is not before it' => [
            ['newestBefore' => '2026-03-16T17:00:00Z'],
            null,
            ['8.5.0'],
            '8.6.0',
        ];
        yield 'released a second before' => [['newestBefore' => '2026-03-16T17:00:01Z'], '8.6.0', ['8.5.0'], null];
        yield 'newest before a date' => [['newestBefore' => '2026-03-17T00:00:00Z'], '8.6.0', ['8.5.0'], null];
        yield 'a candidate only where no release is reachable' => [
            ['newestInMajor' => 9],
            '9.0.0-rc.1',
            ['9.3.0'],
            null,
        ];
        yield 'a beta only when it is named' => [['exact' => '10.0.0-beta.2'], '10.0.0-beta.2', [], null];
        yield 'a beta is never the newest' => [['newestInMajor' => 10], null, [], null];
        yield 'closed: the nearest is the lowest above' => [['exact' => '8.5.0'], null, ['8.5.0'], '8.6.0'];
        yield 'nothing of that major: the nearest is the lowest above' => [['newestInMajor' => 7], null, [], '8.6.0'];
    }

    public function test_a_whole_route_is_written_out(): void
    {
        $situation = Sample::situation([
            'kinds' => [
                Sample::stock('photos'),
                Sample::stock('messages'),
                Sample::stock('contacts'),
                Sample::stock('saved-passwords', '2026-11-20T08:59:00Z', '2026-11-20T08:30:00Z'),
                Sample::stock('health'),
                Sample::stock('payment-cards'),
                Sample::stock('sign-ins'),
                Sample::stock('esim'),
            ],
            'accessories' => [['id' => 'band-1', 'type' => 'fenn-band', 'osVersion' => '5.1.0']],
            'apps' => [
                ['id' => 'tide-table', 'name' => 'Tide Table', 'minimumOs' => '8.0.0'],
                ['id' => 'net', 'name' => 'Net Map', 'minimumOs' => '9.0.0'],
            ],
        ]);

        $route = $this->plan($situation)['routes'][0];

        self::assertSame(
            [
                ['kind' => 'photos', 'outcome' => 'returned', 'from' => 'base', 'asOf' => Sample::NOW],
                [
                    'kind' => 'messages',
                    'outcome' => 'lost',
                    'from' => null,
                    'asOf' => null,
                    'reason' => 'schema-too-new',
                ],
                ['kind' => 'contacts', 'outcome' => 'returned', 'from' => 'base', 'asOf' => Sample::NOW],
                [
                    'kind' => 'saved-passwords',
                    'outcome' => 'returned-as-of',
                    'from' => 'sync',
                    'asOf' => '2026-11-20T08:30:00Z',
                    'reason' => 'encrypted-only',
                ],
                ['kind' => 'health', 'outcome' => 'lost', 'from' => null, 'asOf' => null, 'reason' => 'encrypted-only'],
                [
                    'kind' => 'payment-cards',
                    'outcome' => 're-enter',
                    'from' => null,
                    'asOf' => null,
                    'reason' => 'never-carried',
                ],
                [
                    'kind' => 'sign-ins',
                    'outcome' => 'sign-in-again',
                    'from' => null,
                    'asOf' => null,
                    'reason' => 'never-carried',
                ],
                ['kind' => 'esim', 'outcome' => 'kept', 'from' => 'device', 'asOf' => null],
            ],
            $route['kinds'],
        );
        self::assertSame(
            [
                'lost' => ['messages', 'health'],
                'atRisk' => [],
                'outOfDate' => ['saved-passwords'],
                'pairingLost' => ['band-1'],
                'appsUnavailable' => ['net'],
            ],
            $route['losses'],
        );
        self::assertSame(
            [
                'backup' => 'planned',
                'treatment' => 'lowered',
                'declaredVersion' => '8.7.0',
                'majorsDown' => 1,
                'unproven' => false,
            ],
            $route['base'],
        );
        self::assertSame(
            'Erases once and puts the new backup back through a lowered copy; loses messages, health, brings '
                .'saved passwords back out of date, unpairs Fenn Band, leaves out Net Map.',
            $route['trade'],
        );
        self::assertSame(
            [1, 25_000_000, 48_455_000_000],
            [$route['erases'], $route['fetchBytes'], $route['diskPeakBytes']],
        );
    }

    public function test_a_planned_side_export_brings_a_kind_back_that_the_base_cannot(): void
    {
        $situation = Sample::situation(
            ['kinds' => [Sample::stock('messages')]],
            ['planned' => ['backup' => 'plain', 'sideExports' => ['messages']]],
        );

        self::assertSame(
            [
                [
                    'kind' => 'messages',
                    'outcome' => 'returned',
                    'from' => 'side-export',
                    'asOf' => Sample::NOW,
                    'reason' => 'not-in-base',
                ],
            ],
            $this->plan($situation)['routes'][0]['kinds'],
        );
    }

    public function test_two_majors_down_are_unproven_and_put_every_kind_of_the_base_at_risk(): void
    {
        $situation = Sample::situation([
            'version' => '10.0.0',
            'build' => '10A1',
            'kinds' => [Sample::stock('photos')],
        ]);

        $route = $this->plan($situation)['routes'][0];

        self::assertSame([true, 2], [$route['base']['unproven'], $route['base']['majorsDown']]);
        self::assertSame(['photos'], $route['losses']['atRisk']);
    }

    public function test_without_a_backup_nothing_is_put_back(): void
    {
        $situation = Sample::situation(
            ['kinds' => [Sample::stock('photos')]],
            ['planned' => ['backup' => 'none', 'sideExports' => []]],
        );

        $route = $this->plan($situation)['routes'][0];

        self::assertSame(['none', ['photos']], [$route['base']['treatment'], $route['losses']['lost']]);
    }

    public function test_the_latest_start_keeps_two_deviations_before_the_end_of_the_window(): void
    {
        $builds = [Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', '2026-11-20T18:00:00Z']])];

        $route = $this->plan(Sample::situation(['kinds' => []]), $builds)['routes'][0];

        // By hand: pair 1, 2, 4 and recovery 1, 2, 5 expect 13/6 + 14/6 = 4.5 minutes; fetching 25 MB at 6.1 MB/s
        // 0.0683 × 6.4/6 = 0.0729; deviations 0.5, 4/6 and 0.0068 give 0.8334. Together 6.2397 minutes, 375 seconds.
        self::assertSame('2026-11-20T17:53:45Z', $route['latestStart']);
        self::assertSame('2026-11-20T18:00:00Z', $route['legs'][0]['windowEnds']);
        self::assertSame(4.6, $route['legs'][0]['startsAfterMinutes']);
    }

    public function test_checks_name_what_is_not_ready_and_how_to_mend_it(): void
    {
        $situation = Sample::situation([
            'ownerLock' => 'on',
            'lockDelay' => 'on',
            'lockDelayEndsAt' => '2026-11-20T10:00:00Z',
            'batteryPercent' => 30,
            'charging' => false,
            'paired' => null,
            'passcodeKnown' => null,
            'accessories' => [['id' => 'band-1', 'type' => 'fenn-band', 'osVersion' => '5.1.0']],
        ]);

        $checks = $this->plan($situation)['checks'];

        self::assertSame(
            [
                'paired' => 'unknown',
                'model-resolved' => 'pass',
                'owner-lock-off' => 'fail',
                'lock-delay' => 'fail',
                'owner-account-at-hand' => 'pass',
                'passcode-known' => 'unknown',
                'battery' => 'fail',
                'host-agent' => 'pass',
                'disk-space' => 'pass',
                'almanac-fresh' => 'pass',
                'accessory-accepted' => 'fail',
            ],
            array_column($checks, 'state', 'code'),
        );
        self::assertSame(
            [],
            array_filter($checks, static fn (array $c): bool => ($c['mend'] === '') !== ($c['state'] === 'pass')),
        );
    }

    public function test_the_same_question_has_the_same_answer(): void
    {
        $situation = Sample::situation(['kinds' => [Sample::stock('photos')]]);

        self::assertSame($this->plan($situation), $this->plan($situation, array_reverse(self::line())));
    }

    /**
     * @param  array<string, mixed>  $situation
     * @param  list<array<string, mixed>>|null  $builds
     * @return array<string, mixed> the plan document, which has kept to its own schema
     */
    private function plan(array $situation, ?array $builds = null): array
    {
        $plan = PlanDocument::write(
            (new Planner(Sample::almanac(Sample::catalogue($builds ?? self::line()))))->plan(Sample::read($situation)),
        );
        Gate::parse(Format::Plan, json_encode($plan, JSON_THROW_ON_ERROR));

        return $plan;
    }

    /**
     * Section "time": three measurements of the bench's own replace the usual figures, as 10th percentile, median and
     * 90th.
     */
    public function test_the_benchs_own_rates_replace_the_usual_ones(): void
    {
        $situation = Sample::situation(['kinds' => [['bytes' => 3_000_000_000] + Sample::stock('photos')]]);
        $almanac = Sample::almanac(
            Sample::catalogue([Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', null]])]),
        );
        $minutes = static fn (array $bench): \JadeStep\Core\Route\Minutes => (new Planner($almanac))->plan(
            Sample::read(['bench' => $bench + $situation['bench']] + $situation),
        )->routes[0]->minutes;
        $usual = $minutes([]);
        $measured = $minutes([
            'measured' => [
                'backupBytesPerSecond' => ['low' => 5_000_000, 'likely' => 10_000_000, 'high' => 20_000_000],
                'installMinutes' => ['low' => 6, 'likely' => 7, 'high' => 9],
            ],
        ]);

        // 3 GB at 30 MB/s take 1.5, 1.67 and 2.5 minutes; at the measured rates 2.5, 5 and 10. An install 8, 10, 15
        // against 6, 7, 9.
        self::assertEqualsWithDelta($usual->low + (2.5 - 1.5) + (6 - 8), $measured->low, 1e-9);
        self::assertEqualsWithDelta($usual->likely + (5 - 5 / 3) + (7 - 10), $measured->likely, 1e-9);
        self::assertEqualsWithDelta($usual->high + (10 - 2.5) + (9 - 15), $measured->high, 1e-9);
    }
}
