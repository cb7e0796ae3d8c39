<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Batch;

use JadeStep\Core\Batch\Asked;
use JadeStep\Core\Batch\Batch;
use JadeStep\Core\Batch\BatchDevice;
use JadeStep\Core\Batch\BatchStep;
use JadeStep\Core\Batch\Effort;
use JadeStep\Core\Batch\Foreseen;
use JadeStep\Core\Batch\OrderBefore;
use JadeStep\Core\Batch\PackageFetch;
use JadeStep\Core\Batch\PlacedStep;
use JadeStep\Core\Batch\Schedule;
use JadeStep\Core\Batch\Scheduler;
use JadeStep\Core\Batch\Shift;
use JadeStep\Core\Batch\Waiting;
use JadeStep\Core\Batch\WorkingHours;
use JadeStep\Core\Batch\Workshop;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\ScheduleDocument;
use JadeStep\Core\Route\Minutes;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\TestCase;

final class SchedulerTest extends TestCase
{
    private const MACHINES = ['m0' => 1, 'm1' => 1, 'm2' => 1, 'm3' => 1, 'm4' => 1, 'm5' => 1];

    /** Against a search of every order, over a few hundred small batches. */
    public function test_it_is_seldom_longer_than_the_shortest_there_is_and_never_breaks_a_rule(): void
    {
        $gaps = [];
        for ($seed = 1; $seed <= 300; $seed++) {
            $schedule = Scheduler::schedule(Shops::drawn($seed), Effort::usual($seed)->withTries(60));
            self::assertSame([], Shops::broken($schedule), "seed {$seed}");
            $minutes = (int) round(Shops::makespan($schedule));
            $least = Exhaustive::makespan($schedule->batch, $minutes);
            $gaps[] = ($minutes - $least) / $least;
        }
        $mean = array_sum($gaps) / count($gaps);
        fwrite(STDERR, sprintf(
            "\n300 small batches: %.2f %% longer than the shortest on average, %.1f %% at most, %d of them shortest\n",
            100 * $mean,
            100 * max($gaps),
            count(array_filter($gaps, static fn (float $g): bool => $g === 0.0)),
        ));
        self::assertLessThan(0.05, $mean);
    }

    /** H. Fisher and G. L. Thompson (1963), the job shop of six jobs on six machines; its best is 55 (from memory). */
    public function test_the_job_shop_of_fisher_and_thompson_is_done_in_its_best_time(): void
    {
        $jobs = [
            [[2, 1], [0, 3], [1, 6], [3, 7], [5, 3], [4, 6]],
            [[1, 8], [2, 5], [4, 10], [5, 10], [0, 10], [3, 4]],
            [[2, 5], [3, 4], [5, 8], [0, 9], [1, 1], [4, 7]],
            [[1, 5], [0, 5], [2, 5], [3, 3], [4, 8], [5, 9]],
            [[2, 9], [1, 3], [4, 5], [5, 4], [0, 3], [3, 1]],
            [[1, 3], [3, 3], [5, 9], [0, 10], [4, 4], [2, 1]],
        ];
        $named = array_map(
            static fn (array $job): array => array_map(static fn (array $s): array => ["m{$s[0]}", $s[1]], $job),
            $jobs,
        );
        $schedule = Scheduler::schedule(Shops::batch($named, self::MACHINES), Effort::usual(1));

        self::assertSame([], Shops::broken($schedule));
        self::assertEqualsWithDelta(55.0, Shops::makespan($schedule), 1e-9);
    }

    public function test_the_same_seed_gives_the_same_schedule(): void
    {
        $starts = static fn (int $seed): array => array_map(
            static fn (PlacedStep $s): array => [$s->device, $s->step, $s->startsAt->format('c'), $s->units, $s->port],
            Scheduler::schedule(Shops::drawn(7), Effort::usual($seed))->steps,
        );

        self::assertSame($starts(3), $starts(3));
    }

    public function test_made_again_it_stays_as_it_is_unless_another_one_is_clearly_better(): void
    {
        $kept = 0;
        for ($seed = 1; $seed <= 40; $seed++) {
            $batch = Shops::drawn($seed);
            $first = Foreseen::of(new Asked($batch, [], $seed, 100), $batch->startsAt);
            $order = ScheduleDocument::order(Fields::of(ScheduleDocument::write($first, [])));
            $again = Scheduler::schedule($batch, Effort::usual($seed + 1), null, $order);
            if ($again->rule === null) {
                self::assertSame(self::starts($first->schedule), self::starts($again), "seed {$seed}");
                $kept++;
            } else {
                self::assertLessThan(Shops::makespan($first->schedule), Shops::makespan($again), "seed {$seed}");
            }
        }
        self::assertGreaterThan(35, $kept);
    }

    public function test_an_order_that_would_make_somebody_late_is_not_kept(): void
    {
        $jobs = [[['hands', 10]], [['hands', 10]], [['hands', 30]]];
        $batch = Shops::batch($jobs, ['hands' => 1], '2026-11-30T07:20:00Z');
        $longFirst = new OrderBefore(array_map(
            static fn (string $device): array => ['device' => $device, 'step' => 's0', 'leg' => 0],
            ['d2', 'd0', 'd1'],
        ));
        $usual = Scheduler::schedule($batch, Effort::usual(1), null, $longFirst);

        self::assertSame([2], $usual->late());
        // without a deadline it is as good as any, and is kept
        $free = Scheduler::schedule(Shops::batch($jobs, ['hands' => 1]), Effort::usual(1), null, $longFirst);
        self::assertSame([2, 0, 1], array_map(static fn (PlacedStep $s): ?int => $s->device, $free->steps));
    }

    public function test_where_time_runs_out_the_best_so_far_is_given_and_said_to_be_cut_short(): void
    {
        $seconds = 0.0;
        $clock = static function () use (&$seconds): float {
            return $seconds += 15.0;
        };
        $schedule = Scheduler::schedule(Shops::drawn(7), Effort::usual(1), $clock);

        self::assertTrue($schedule->cutShort);
        self::assertSame([], Shops::broken($schedule));
        self::assertFalse(Scheduler::schedule(Shops::drawn(7), Effort::usual(1), static fn (): float => 0.0)->cutShort);
    }

    public function test_a_port_is_kept_from_the_first_step_to_the_last(): void
    {
        // between its two steps by hand the first device runs alone; the other may have its hands, but not its port
        $jobs = [
            [[['port', 'hands'], 2], [['port', 'worker'], 30], [['port', 'hands'], 2]],
            [[['port', 'hands'], 2], [['port', 'worker'], 5], [['port', 'hands'], 2]],
        ];
        $one = Scheduler::schedule(
            Shops::batch($jobs, ['port' => 1, 'hands' => 1, 'worker' => 2]),
            Effort::usual(1),
        );
        $two = Scheduler::schedule(
            Shops::batch($jobs, ['port' => 2, 'hands' => 1, 'worker' => 2]),
            Effort::usual(1),
        );

        self::assertSame([], Shops::broken($one));
        self::assertEqualsWithDelta(43.0, Shops::makespan($one), 1e-9);
        self::assertEqualsWithDelta(34.0, Shops::makespan($two), 1e-9);
    }

    public function test_hands_work_in_working_hours_only_and_what_runs_alone_goes_on(): void
    {
        // 30 November 2026 is a Monday; 07:00 UTC is 08:00 in Oslo
        $hours = WorkingHours::of([new Shift([1, 2, 3, 4, 5], '08:00', '09:00')], new \DateTimeZone('Europe/Oslo'));
        $schedule = Scheduler::schedule(Shops::batch(
            [[[['port', 'hands'], 50], [['port', 'worker'], 120], [['port', 'hands'], 20], [['port', 'hands'], 45]]],
            ['port' => 1, 'hands' => 1, 'worker' => 1],
            '2026-11-30T20:00:00Z',
            $hours,
        ), Effort::usual(1));

        self::assertSame(
            ['2026-11-30T07:00:00Z', '2026-11-30T07:50:00Z', '2026-12-01T07:00:00Z', '2026-12-02T07:00:00Z'],
            self::starts($schedule),
        );
        self::assertSame(Waiting::ForHours, $schedule->devices[0]->late?->for);
    }

    public function test_hours_end_with_the_week_and_begin_again_after_it(): void
    {
        $hours = WorkingHours::of([new Shift([5], '08:00', '10:00')], new \DateTimeZone('Europe/Oslo'));
        $schedule = Scheduler::schedule(Shops::batch(
            [[['hands', 60], ['hands', 60], ['hands', 60]]],
            ['hands' => 1],
            null,
            $hours,
        ), Effort::usual(1));

        self::assertSame(
            ['2026-12-04T07:00:00Z', '2026-12-04T08:00:00Z', '2026-12-11T07:00:00Z'],
            self::starts($schedule),
        );
    }

    public function test_what_is_longer_than_any_shift_begins_with_one(): void
    {
        $hours = WorkingHours::of([new Shift([1, 2], '08:00', '09:00')], new \DateTimeZone('Europe/Oslo'));
        $schedule = Scheduler::schedule(Shops::batch(
            [[['hands', 10], ['hands', 90]]],
            ['hands' => 1],
            null,
            $hours,
        ), Effort::usual(1));

        self::assertSame(['2026-11-30T07:00:00Z', '2026-12-01T07:00:00Z'], self::starts($schedule));
    }

    public function test_a_step_waits_for_its_moment_and_the_window_of_another_goes_first(): void
    {
        $time = static fn (?string $at): ?\DateTimeImmutable => $at === null ? null : Rfc3339::parse($at);
        $step = static fn (int $minutes, ?string $from, ?string $before, array $after): BatchStep => new BatchStep(
            's',
            0,
            Minutes::of($minutes, $minutes, $minutes),
            ['hands'],
            array_values(array_filter($after, is_int(...))),
            $time($from),
            $time($before),
        );
        $locked = new BatchDevice('a', 'A', [$step(5, null, null, []), $step(5, '2026-11-30T08:00:00Z', null, [0])]);
        $closing = new BatchDevice('b', 'B', [$step(30, null, null, []), $step(5, null, '2026-11-30T07:31:00Z', [0])]);
        $batch = new Batch(
            Rfc3339::parse(Shops::START),
            null,
            Workshop::ofUnits(['hands' => 1], WorkingHours::always()),
            [$locked, $closing],
        );
        $schedule = Scheduler::schedule($batch, Effort::usual(1));

        self::assertSame([], $schedule->late());
        self::assertContains('2026-11-30T08:00:00Z', self::starts($schedule));
        $tooLate = new BatchDevice('b', 'B', [
            $step(30, null, null, []), $step(5, null, '2026-11-30T07:30:00Z', [0]),
        ]);
        $missed = Scheduler::schedule($batch->withDevices([$locked, $tooLate]), Effort::usual(1));
        self::assertSame([1], $missed->late());
        self::assertSame('window', $missed->devices[1]->late?->code());
        self::assertSame(
            'Its way takes too long: its window closes before its permit can be asked for.',
            $missed->devices[1]->late->words(),
        );
    }

    public function test_a_package_is_fetched_once_and_whoever_needs_it_waits_for_it(): void
    {
        $device = static fn (string $id): BatchDevice => new BatchDevice($id, $id, [
            new BatchStep('pair', 0, Minutes::of(2, 2, 2), ['port', 'hands'], []),
            new BatchStep('install', 0, Minutes::of(10, 10, 10), ['port', 'worker'], [0], null, null, ['p']),
        ]);
        $schedule = Scheduler::schedule(new Batch(
            Rfc3339::parse(Shops::START),
            null,
            Workshop::of(2, 1, 4, 1, 4, WorkingHours::always()),
            [$device('a'), $device('b')],
            [new PackageFetch('unneeded', Minutes::of(20, 20, 20)), new PackageFetch('p', Minutes::of(20, 20, 20))],
        ), Effort::usual(1));

        $fetches = array_filter($schedule->steps, static fn (PlacedStep $s): bool => $s->device === null);
        self::assertSame([1], array_column($fetches, 'step'));
        self::assertEqualsWithDelta(30.0, Shops::makespan($schedule), 1e-9);
    }

    public function test_what_is_late_says_what_it_waited_for(): void
    {
        $two = array_fill(0, 2, [[['port', 'hands'], 10], [['port', 'worker'], 30]]);
        $shop = ['port' => 1, 'hands' => 1, 'worker' => 2];
        $schedule = Scheduler::schedule(Shops::batch($two, $shop, '2026-11-30T07:50:00Z'), Effort::usual(1));
        $late = $schedule->devices[$schedule->late()[0]]->late;

        self::assertCount(1, $schedule->late());
        self::assertSame('It waits 40 min for a port, and is 30 min late.', $late?->words());
        $alone = Scheduler::schedule(Shops::batch([$two[0]], $shop, '2026-11-30T07:30:00Z'), Effort::usual(1));
        self::assertSame('Its way alone takes too long, and is 10 min late.', $alone->devices[0]->late?->words());
    }

    public function test_what_runs_goes_on_where_it_is_and_the_rest_comes_after(): void
    {
        $running = new BatchDevice('a', 'A', [
            new BatchStep('install', 0, Minutes::of(7, 7, 7), ['port', 'worker'], [], runs: true),
            new BatchStep('hand-over', 0, Minutes::of(1, 1, 1), ['port', 'hands'], [0]),
        ], null, 1);
        $waiting = new BatchDevice('b', 'B', [
            new BatchStep('install', 0, Minutes::of(5, 5, 5), ['port', 'worker'], []),
        ]);
        $schedule = Scheduler::schedule(new Batch(
            Rfc3339::parse(Shops::START),
            null,
            Workshop::of(2, 1, 1, 1, 1, WorkingHours::always()),
            [$waiting, $running],
        ), Effort::usual(1));

        self::assertSame([0, 1], [$schedule->devices[0]->port, $schedule->devices[1]->port]);
        self::assertSame('2026-11-30T07:07:00Z', Rfc3339::format($schedule->devices[0]->startsAt));
        self::assertSame('2026-11-30T07:00:00Z', Rfc3339::format($schedule->devices[1]->startsAt));
    }

    public function test_the_order_of_one_technician_is_without_overlaps(): void
    {
        $jobs = array_fill(0, 6, [[['port', 'hands'], 5], [['port', 'worker'], 20], [['port', 'hands'], 5]]);
        $schedule = Scheduler::schedule(
            Shops::batch($jobs, ['port' => 3, 'hands' => 2, 'worker' => 4]),
            Effort::usual(1),
        );
        $orders = [$schedule->orderOf(0), $schedule->orderOf(1)];

        self::assertSame(12, count($orders[0]) + count($orders[1]));
        foreach ($orders as $order) {
            for ($i = 1; $i < count($order); $i++) {
                self::assertGreaterThanOrEqual($order[$i - 1]->endsAt, $order[$i]->startsAt);
            }
        }
    }

    public function test_a_batch_without_devices_is_done_at_once(): void
    {
        $schedule = Scheduler::schedule(Shops::batch([], ['port' => 1]), Effort::usual(1));

        self::assertSame([], $schedule->steps);
        self::assertSame(Shops::START, Rfc3339::format($schedule->finishesAt()));
    }

    /** @return list<string> */
    private static function starts(Schedule $schedule): array
    {
        return array_map(static fn (PlacedStep $s): string => Rfc3339::format($s->startsAt), $schedule->steps);
    }
}
