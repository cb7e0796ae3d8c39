<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Batch;

use JadeStep\Core\Batch\Batch;
use JadeStep\Core\Batch\BatchDevice;
use JadeStep\Core\Batch\BatchStep;
use JadeStep\Core\Batch\Effort;
use JadeStep\Core\Batch\Help;
use JadeStep\Core\Batch\HelpKind;
use JadeStep\Core\Batch\Helps;
use JadeStep\Core\Batch\OtherWay;
use JadeStep\Core\Batch\Outlook;
use JadeStep\Core\Batch\ScheduleChange;
use JadeStep\Core\Batch\ScheduleGist;
use JadeStep\Core\Batch\Scheduler;
use JadeStep\Core\Batch\Shift;
use JadeStep\Core\Batch\Simulation;
use JadeStep\Core\Batch\WorkingHours;
use JadeStep\Core\Route\Minutes;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class SimulationTest extends TestCase
{
    /** The default times of domain knowledge (common practice, no source), in the order of a job without data. */
    private const CHAIN = [[1, 2, 4], [1, 2, 5], [8, 10, 15], [4, 6, 12], [3, 5, 10]];

    private static function played(Batch $batch, int $draws = 4_000): Outlook
    {
        return Simulation::play(Scheduler::schedule($batch, Effort::usual(1)), 1, $draws);
    }

    /** @param  list<array{int|float, int|float, int|float}>  $minutes */
    private static function chain(array $minutes, ?string $deadline = null, ?WorkingHours $hours = null): Batch
    {
        return Shops::batch(
            [array_map(static fn (array $m): array => [['port', 'hands'], Minutes::of(...$m)], $minutes)],
            ['port' => 1, 'hands' => 1],
            $deadline,
            $hours,
        );
    }

    /** @return iterable<string, array{list<array{int, int, int}>}> */
    public static function chains(): iterable
    {
        yield 'the steps of a job' => [self::CHAIN];
        yield 'one step, skewed to the right' => [[[10, 10, 100]]];
        yield 'one step, skewed to the left' => [[[10, 100, 100]]];
        yield 'one step, even' => [[[10, 20, 30]]];
        yield 'what is certain' => [[[10, 10, 10], [5, 5, 5]]];
    }

    /**
     * PERT's closed form (Malcolm, Roseboom, Clark and Fazar, 1959): expected (a + 4m + b) / 6 add up, variances
     * ((b − a) / 6)² too. The mean of 20,000 draws is off by a few of its standard errors at most.
     *
     * @param  list<array{int, int, int}>  $steps
     */
    #[DataProvider('chains')]
    public function test_a_single_chain_has_perts_mean_and_deviation(array $steps): void
    {
        $draws = 20_000;
        $outlook = self::played(self::chain($steps), $draws);
        $mean = array_sum(array_map(static fn (array $s): float => ($s[0] + 4 * $s[1] + $s[2]) / 6, $steps));
        $deviation = sqrt(array_sum(array_map(static fn (array $s): float => (($s[2] - $s[0]) / 6) ** 2, $steps)));

        $found = ((float) $outlook->finish->mean->format('U.u') - Rfc3339::parse(Shops::START)->getTimestamp()) / 60;
        self::assertEqualsWithDelta($mean, $found, 4 * $deviation / sqrt($draws) + 1e-6);
        self::assertEqualsWithDelta($deviation, $outlook->finish->deviation, 0.03 * $deviation + 1e-6);
    }

    public function test_ninety_of_a_hundred_finishes_lie_in_the_span_and_the_chance_follows_the_deadline(): void
    {
        $span = self::played(self::chain(self::CHAIN))->finish;
        self::assertTrue($span->holds($span->middle));
        foreach ([['from', 0.05], ['middle', 0.5], ['until', 0.95]] as [$edge, $share]) {
            $deadline = Rfc3339::format($span->{$edge});
            self::assertEqualsWithDelta($share, self::played(self::chain(self::CHAIN, $deadline))->chance, 0.03);
        }
        self::assertSame(0.0, self::played(self::chain(self::CHAIN, '2026-11-30T07:16:00Z'))->chance);
        self::assertSame(1.0, self::played(self::chain(self::CHAIN, '2026-11-30T07:47:00Z'))->chance);
    }

    public function test_that_all_make_it_is_less_likely_than_that_each_does(): void
    {
        $two = Shops::batch(
            array_fill(0, 2, [[['port', 'worker'], Minutes::of(10, 20, 30)]]),
            ['port' => 2, 'worker' => 2],
            '2026-11-30T07:20:00Z',
        );
        $outlook = self::played($two);

        self::assertEqualsWithDelta(0.5, $outlook->devices[0]->chance, 0.03);
        self::assertEqualsWithDelta(0.5, $outlook->devices[1]->chance, 0.03);
        // drawn independently: a half of a half
        self::assertEqualsWithDelta(0.25, $outlook->chance, 0.03);
    }

    public function test_what_is_over_by_a_little_in_the_evening_is_done_in_the_morning(): void
    {
        $hours = WorkingHours::of([new Shift([1, 2, 3, 4, 5], '08:00', '09:00')], new \DateTimeZone('Europe/Oslo'));
        $outlook = self::played(self::chain([[20, 30, 40], [30, 30, 30]], null, $hours));

        // one of two draws of the first leaves half an hour for the second
        self::assertSame('2026-11-30', $outlook->finish->from->format('Y-m-d'));
        self::assertSame('2026-12-01', $outlook->finish->until->format('Y-m-d'));
        self::assertSame('2026-12-01T07:30:00Z', Rfc3339::format($outlook->finish->until));
    }

    public function test_a_window_that_closes_counts_as_a_miss(): void
    {
        $device = new BatchDevice('a', 'A', [
            new BatchStep('back-up', 0, Minutes::of(10, 20, 30), ['port'], []),
            new BatchStep(
                'install', 0, Minutes::of(1, 1, 1), ['port'], [0], null, Rfc3339::parse('2026-11-30T07:20:00Z'),
            ),
        ]);
        $batch = Shops::batch([], ['port' => 1])->withDevices([$device]);

        self::assertEqualsWithDelta(0.5, self::played($batch)->chance, 0.03);
    }

    public function test_the_same_seed_plays_the_same(): void
    {
        $schedule = Scheduler::schedule(self::chain(self::CHAIN), Effort::usual(1));

        self::assertEquals(Simulation::play($schedule, 5, 200), Simulation::play($schedule, 5, 200));
        self::assertNotEquals(Simulation::play($schedule, 5, 200), Simulation::play($schedule, 6, 200));
    }

    public function test_a_schedule_is_played_with_other_times_in_its_own_order(): void
    {
        // by device, how many minutes it is in hand and how many it then runs alone; with one pair of hands
        $batch = static fn (array $one, array $other): Batch => Shops::batch(
            array_map(static fn (array $m): array => [
                [['port', 'hands'], Minutes::of(...array_fill(0, 3, $m[0]))],
                [['port'], Minutes::of(...array_fill(0, 3, $m[1]))],
            ], [$one, $other]),
            ['port' => 2, 'hands' => 1],
        );
        $schedule = Scheduler::schedule($batch([10, 30], [20, 5]), Effort::usual(1));

        self::assertSame([40 * 60.0], Simulation::finishes($schedule, $batch([10, 30], [20, 5]), 1, 1));
        // the other way round it would be done after 50 minutes
        self::assertSame([60 * 60.0], Simulation::finishes($schedule, $batch([10, 5], [20, 30]), 1, 1));
    }

    public function test_what_helps_is_tried_and_the_most_helpful_comes_first(): void
    {
        // a port is what is short: hands are needed for two minutes of every thirty
        $job = [[['port', 'hands'], Minutes::of(1, 2, 3)], [['port', 'worker'], Minutes::of(20, 28, 40)]];
        $batch = Shops::batch(
            array_fill(0, 4, $job),
            ['port' => 1, 'hands' => 1, 'worker' => 4],
            '2026-11-30T08:20:00Z',
        );
        $schedule = Scheduler::schedule($batch, Effort::usual(1));
        $outlook = Simulation::play($schedule, 1);
        $helps = Helps::of($schedule, $outlook, Effort::small(1), Rfc3339::parse('2026-11-29T07:00:00Z'));
        $by = [];
        foreach ($helps as $help) {
            $by[$help->kind->value] = $help;
        }

        self::assertSame(0.0, $outlook->chance);
        self::assertContains($helps[0]->kind, [HelpKind::OneMorePort, HelpKind::EarlierStart]);
        self::assertGreaterThan(0.9, $by['one-more-port']->chance);
        self::assertGreaterThan(50, $by['one-more-port']->minutes);
        self::assertSame(0, $by['one-more-port']->late);
        self::assertLessThan(5, abs($by['one-more-technician']->minutes));
        self::assertEqualsWithDelta(60, $by['earlier-start']->minutes, 3);
        self::assertArrayNotHasKey('other-route', $by);
    }

    public function test_an_earlier_start_is_no_help_where_it_has_begun_and_brings_people_in_where_it_has_not(): void
    {
        $hours = WorkingHours::of([new Shift([1], '08:00', '16:00')], new \DateTimeZone('Europe/Oslo'));
        $batch = self::chain([[30, 30, 30]], '2026-11-30T07:15:00Z', $hours);
        $helped = static fn (string $now): array => array_map(
            static fn (Help $h): array => [$h->kind, $h->chance],
            array_values(array_filter(
                Helps::of(
                    Scheduler::schedule($batch, Effort::usual(1)),
                    self::played($batch),
                    Effort::small(1),
                    Rfc3339::parse($now),
                ),
                static fn (Help $h): bool => $h->kind === HelpKind::EarlierStart,
            )),
        );

        self::assertSame([[HelpKind::EarlierStart, 1.0]], $helped('2026-11-30T06:00:00Z'));
        self::assertSame([], $helped('2026-11-30T06:00:01Z'));
    }

    public function test_another_route_helps_those_that_are_late(): void
    {
        $long = [new BatchStep('put-back', 0, Minutes::of(50, 60, 70), ['port'], [])];
        $short = [new BatchStep('put-back', 0, Minutes::of(5, 6, 7), ['port'], [])];
        $batch = Shops::batch([], ['port' => 2], '2026-11-30T07:30:00Z')->withDevices([
            new BatchDevice('a', 'A', $long, 'r1', null, [new OtherWay('r2', $short, 'messages stay behind')]),
            new BatchDevice('b', 'B', $short, 'r1', null, [new OtherWay('r2', $long, 'nothing')]),
        ]);
        $schedule = Scheduler::schedule($batch, Effort::usual(1));
        $help = Helps::of($schedule, self::played($batch), Effort::small(1), $batch->startsAt)[0];

        self::assertSame(
            [HelpKind::OtherRoute, 'Another route for one device: messages stay behind', 1.0, 1.0, ['a']],
            [$help->kind, $help->words, $help->chance, $help->gain, $help->devices],
        );
    }

    public function test_what_changed_is_said(): void
    {
        $gist = static fn (string $at, float $chance, array $ids, array $late): ScheduleGist => new ScheduleGist(
            Rfc3339::parse($at),
            $chance,
            $ids,
            $late,
        );
        $before = $gist('2026-11-30T15:00:00Z', 0.82, ['a', 'b', 'c'], ['c']);

        self::assertSame([], ScheduleChange::between($before, $before)->words());
        self::assertTrue(
            ScheduleChange::between($before, $gist('2026-11-30T15:01:30Z', 0.824, ['a', 'b', 'c'], ['c']))->isNothing(),
        );
        self::assertSame(
            [
                'The last device is expected 35 min later.',
                'That all make it is less likely by 31 in 100.',
                'One device will be late now.',
                'One device is done.',
                '2 devices came into it.',
            ],
            ScheduleChange::between(
                $before,
                $gist('2026-11-30T15:35:00Z', 0.51, ['b', 'c', 'd', 'e'], ['b', 'c']),
            )->words(),
        );
        self::assertSame(
            [
                'The last device is expected 20 min earlier.',
                'That all make it is more likely by 10 in 100.',
                'One device is in time again.',
            ],
            ScheduleChange::between($before, $gist('2026-11-30T14:40:00Z', 0.92, ['a', 'b', 'c'], []))->words(),
        );
    }
}
