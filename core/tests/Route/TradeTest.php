<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Copied;
use JadeStep\Core\Route\Minutes;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Route\Route;
use JadeStep\Core\Route\Trade;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class TradeTest extends TestCase
{
    /** The screen shows whole minutes and megabytes, and what it says of two routes is the difference of those. */
    #[DataProvider('figures')]
    public function test_what_two_routes_differ_in_adds_up_on_the_screen(
        float $first,
        float $other,
        string $words,
    ): void {
        $route = self::route();
        $sentence = Trade::sentence(
            self::lasting($route, $other),
            self::lasting($route, $first),
            Sample::read(Sample::situation())->device,
        );

        self::assertStringContainsString($words, $sentence);
    }

    /** @return iterable<string, array{float, float, string}> minutes of both, and the words */
    public static function figures(): iterable
    {
        yield '27 and 22 are 5 apart, though 27.4 and 21.6 are 5.8' => [27.4, 21.6, 'Against the first: 5 min less.'];
        yield '22 and 27 the other way round' => [21.6, 27.4, 'Against the first: 5 min more.'];
        yield 'what looks the same is not called different' => [21.6, 22.4, 'nothing is lost.'];
    }

    private static function lasting(Route $route, float $minutes): Route
    {
        return Copied::with($route, minutes: Minutes::told($minutes, $minutes, $minutes, $minutes, 0.0));
    }

    private static function route(): Route
    {
        $open = [['2026-05-04T17:00:00Z', null]];
        $almanac = Sample::almanac(
            Sample::catalogue([Sample::build('9.3.0', '9D55', $open), Sample::build('8.7.0', '8G210', $open)]),
        );

        return (new Planner($almanac))->plan(Sample::read(Sample::situation()))->routes[0];
    }
}
