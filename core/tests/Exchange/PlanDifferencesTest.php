<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Exchange;

use JadeStep\Core\Exchange\PlanDifferences;
use JadeStep\Core\Route\Plan;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What differs between the plan that was accepted and the world of now. */
final class PlanDifferencesTest extends TestCase
{
    private const OPEN = ['2026-05-04T17:00:00Z', null];

    /**
     * @param  list<array<string, mixed>>  $builds  of now
     * @param  array<string, mixed>  $device  of now
     * @param  array<string, mixed>  $more  of the situation of now
     * @param  list<string>  $words
     */
    #[DataProvider('worlds')]
    public function test_each_difference_is_one_sentence(array $builds, array $device, array $more, array $words): void
    {
        $then = self::plan([self::build(self::OPEN)], [], []);

        $now = Sample::read(Sample::situation($device))->device;
        $found = PlanDifferences::between($then, self::plan($builds, $device, $more), $then->routes[0], $now);

        self::assertSame($words, array_column($found, 'words'));
    }

    /**
     * @return iterable<string, array{list<array<string, mixed>>, array<string, mixed>, array<string, mixed>,
     *   list<string>}>
     */
    public static function worlds(): iterable
    {
        $same = self::build(self::OPEN);
        yield 'nothing' => [[$same], [], [], []];
        yield 'the window closed' => [
            [self::build(['2026-05-04T17:00:00Z', '2026-11-20T08:30:00Z'])],
            [],
            [],
            ['The route that was taken is not on offer any more (window-closed).', 'Nothing reaches the goal now.'],
        ];
        yield 'an end announced' => [
            [self::build(['2026-05-04T17:00:00Z', '2026-12-01T18:00:00Z'])],
            [],
            [],
            ['The window of 8.7 (8G210) ends 2026-12-01T18:00:00Z now, which was not known.'],
        ];
        yield 'a newer build of the goal' => [
            [$same, Sample::build('8.8.0', '8H10', [self::OPEN])],
            [],
            [],
            [
                'The route that was taken is not on offer any more.',
                'The goal leads to 8.8 (8H10) now, not to 8.7 (8G210).',
            ],
        ];
        yield 'a slower line' => [
            [$same],
            [],
            ['bench' => ['linkBytesPerSecond' => 50_000] + Sample::situation()['bench']],
            ['It is expected to take 9 min longer than then.'],
        ];
        yield 'an accessory was paired' => [
            [$same],
            ['accessories' => [['id' => 'band-1', 'type' => 'fenn-band', 'osVersion' => '5.1.0']]],
            [],
            ['Fenn Band loses its pairing now.'],
        ];
        yield 'what was at stake is not any more' => [
            [$same],
            ['kinds' => []],
            [],
            ['Health is not among the losses any more.'],
        ];
        $package = $same;
        $package['packages'][0]['sha256'] = hash('sha256', 'another');
        $package['packages'][0]['bytes'] = 28_000_000;
        yield 'another package' => [
            [$package],
            [],
            [],
            ['8.7 (8G210) has another package now: what was fetched is not it.', '3 MB more have to be fetched.'],
        ];
    }

    /**
     * @param  array{string, string|null}  $window
     * @return array<string, mixed>
     */
    private static function build(array $window): array
    {
        return Sample::build('8.7.0', '8G210', [$window]);
    }

    /**
     * @param  list<array<string, mixed>>  $builds
     * @param  array<string, mixed>  $device
     * @param  array<string, mixed>  $more
     */
    private static function plan(array $builds, array $device, array $more): Plan
    {
        $situation = Sample::situation($device + ['kinds' => [Sample::stock('health')]], $more);

        return (new Planner(Sample::almanac(Sample::catalogue($builds))))->plan(Sample::read($situation));
    }
}
