<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Forecast;

use JadeStep\Core\Forecast\Lasted;
use JadeStep\Core\Forecast\SurvivalCurve;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * Remission of the maintained group of Embury and others (1977), as R. G. Miller, "Survival Analysis" (1981), works it
 * out by hand: weeks 9, 13, 13+, 18, 23, 28+, 31, 34, 45+, 48, 161+ (from memory).
 */
final class SurvivalCurveTest extends TestCase
{
    /** @return list<Lasted> */
    private static function maintained(): array
    {
        $seen = [[9, 1], [13, 1], [13, 0], [18, 1], [23, 1], [28, 0], [31, 1], [34, 1], [45, 0], [48, 1], [161, 0]];

        return array_map(
            static fn (array $s): Lasted => $s[1] === 1 ? Lasted::until($s[0]) : Lasted::atLeast($s[0]),
            $seen,
        );
    }

    /** @return iterable<string, array{float, float}> */
    public static function chances(): iterable
    {
        yield 'before anything has ended' => [8.9, 1.0];
        yield 'at the first end: 10/11' => [9.0, 0.909];
        yield 'and 9/10' => [13.0, 0.818];
        yield 'two of the ten are gone, 7/8' => [18.0, 0.716];
        yield '6/7' => [23.0, 0.614];
        yield 'what was last seen changes nothing' => [28.0, 0.614];
        yield '4/5' => [31.0, 0.491];
        yield '3/4' => [34.0, 0.368];
        yield '1/2' => [48.0, 0.184];
        yield 'level to the end of what was watched' => [1000.0, 0.184];
    }

    #[DataProvider('chances')]
    public function test_the_chance_to_outlast_a_time(float $time, float $chance): void
    {
        self::assertEqualsWithDelta($chance, SurvivalCurve::of(self::maintained())->chanceAt($time), 0.0005);
    }

    public function test_of_those_that_are_twenty_weeks_old_the_chance_is_the_quotient_of_both(): void
    {
        $all = SurvivalCurve::of(self::maintained());
        $old = SurvivalCurve::ofAge(20.0, self::maintained());

        self::assertSame(1.0, $old->chanceAt(20.0));
        self::assertEqualsWithDelta(6 / 7, $old->chanceAt(23.0), 1e-12);
        self::assertEqualsWithDelta($all->chanceAt(34.0) / $all->chanceAt(20.0), $old->chanceAt(34.0), 1e-12);
        self::assertSame(4, $old->ends());
        self::assertSame(31.0, $all->timeOfShare(0.5));
        self::assertSame(48.0, $old->timeOfShare(0.5));
    }

    public function test_what_ends_at_the_very_age_is_not_among_those_that_are_older(): void
    {
        self::assertSame(4, SurvivalCurve::ofAge(31.0, self::maintained())->steps[0]->atRisk);
        self::assertSame(34.0, SurvivalCurve::ofAge(31.0, self::maintained())->steps[0]->time);
    }

    public function test_a_level_at_exactly_the_share_gives_its_middle_and_one_that_is_not_reached_nothing(): void
    {
        $four = array_map(Lasted::until(...), [1.0, 2.0, 5.0, 9.0]);

        self::assertSame(3.5, SurvivalCurve::of($four)->timeOfShare(0.5));
        $few = [Lasted::until(1), Lasted::atLeast(2), Lasted::atLeast(3)];
        self::assertNull(SurvivalCurve::of($few)->timeOfShare(0.5));
        self::assertNull(SurvivalCurve::of([])->timeOfShare(0.5));
        self::assertNull(SurvivalCurve::of([])->longest());
    }

    public function test_there_is_no_interval_before_an_end_nor_where_nothing_is_left(): void
    {
        $curve = SurvivalCurve::of([Lasted::atLeast(1), Lasted::until(2), Lasted::until(3)]);

        self::assertNull($curve->steps[0]->interval());
        self::assertNotNull($curve->steps[1]->interval());
        self::assertNull($curve->steps[2]->interval());
        self::assertSame(0.0, $curve->chanceAt(3));
    }
}
