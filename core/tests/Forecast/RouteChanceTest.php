<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Forecast;

use JadeStep\Core\Forecast\Forecaster;
use JadeStep\Core\Forecast\RouteChance;
use JadeStep\Core\Forecast\Silence;
use JadeStep\Core\Forecast\WindowHistory;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\TestCase;

/** The sample's device runs 9.3.0 and goes to 8.7.0, which 9.3.0 superseded. All before came out on one day. */
final class RouteChanceTest extends TestCase
{
    /**
     * @param  string|null  $announced  the end of the goal's window
     * @param  list<int>  $days  for which the earlier builds stayed signed after the next came out
     */
    private static function chance(?string $announced, array $days, string $superseded): RouteChance
    {
        $builds = [Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', $announced]])];
        foreach ($days as $i => $open) {
            $until = Rfc3339::format(Rfc3339::parse('2026-01-01T00:00:00Z')->modify("+{$open} days"));
            $builds[] = ['releasedAt' => '2026-01-01T00:00:00Z']
                + Sample::build("7.{$i}.0", "7{$i}", [['2026-01-01T00:00:00Z', $until]]);
        }
        $builds[] = ['releasedAt' => '2026-01-01T00:00:00Z'] + Sample::build('8.0.0', '80', []);
        $builds[] = ['releasedAt' => $superseded, 'channel' => 'release'] + Sample::build('9.3.0', '9D55', []);
        $almanac = Sample::almanac(Sample::catalogue($builds));
        $situation = Sample::read(Sample::situation());
        $route = (new Planner($almanac))->plan($situation)->routes[0];

        return RouteChance::of(
            $almanac,
            new Forecaster(WindowHistory::of($almanac), $situation->now),
            $situation,
            $route,
        );
    }

    public function test_the_chance_is_that_of_the_moment_at_which_the_permit_is_asked_for(): void
    {
        // superseded two days ago; of those that held for longer than that, the middle one held for four
        $chance = self::chance(null, [1, 2, 3, 4, 5], '2026-11-18T09:00:00Z');

        $least = $chance->least();
        self::assertNotNull($least);
        self::assertGreaterThan('2026-11-20T09:00:00Z', Rfc3339::format($least->permitAt));
        self::assertEqualsWithDelta(1.0, $least->chance?->share, 1e-12);
        self::assertSame('2026-11-22T09:00:00Z', Rfc3339::formatOrNull($least->halfClosedBy()));
        self::assertFalse($chance->isLittle());
        $way = $least->permitAt->getTimestamp() - Rfc3339::parse('2026-11-20T09:00:00Z')->getTimestamp();
        self::assertSame(
            Rfc3339::parse('2026-11-22T09:00:00Z')->getTimestamp() - $way,
            $chance->startBy()?->getTimestamp(),
        );
    }

    public function test_an_announced_end_is_not_estimated_beside(): void
    {
        $chance = self::chance('2026-12-20T00:00:00Z', [1, 2, 3, 4, 5], '2026-11-18T09:00:00Z');

        self::assertSame(Silence::EndAnnounced, $chance->legs[0]->forecast);
        self::assertNull($chance->least());
        self::assertNull($chance->startBy());
        self::assertFalse($chance->isLittle());
    }
}
