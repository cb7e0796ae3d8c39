<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Route\Installed;
use JadeStep\Core\Route\InstallJudge;
use JadeStep\Core\Route\Reason;
use JadeStep\Core\Route\Timetable;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class InstallJudgeTest extends TestCase
{
    /**
     * @param  list<array{string, string|null}>  $windows
     * @param  array<string, mixed>  $build
     * @param  array<string, mixed>  $device
     * @param  array<string, mixed>  $bench
     * @param  list<array<string, mixed>>  $expected
     */
    #[DataProvider('cases')]
    public function test_gives_every_reason_that_applies(
        array $windows,
        array $build,
        array $device,
        string $now,
        array $expected,
        array $bench = [],
    ): void {
        $almanac = Sample::almanac(Sample::catalogue([Sample::build('8.7.0', '8G210', $windows, $build)]));
        $situation = Sample::situation($device, ['now' => $now]);
        $situation['bench'] = $bench + $situation['bench'];
        $read = Sample::read($situation);
        $judge = new InstallJudge($almanac, $read, new Timetable($read));

        $reasons = $judge->reasons($almanac->builds('tarn')[0], Installed::on($read->device));

        self::assertSame(
            $expected,
            array_map(static fn (Reason $r): array => ['code' => $r->code->value] + $r->facts, $reasons),
        );
    }

    /** @return iterable<string, array<mixed>> */
    public static function cases(): iterable
    {
        $open = [['2026-05-04T17:00:00Z', null]];
        $now = Sample::NOW;
        yield 'signed' => [$open, [], [], $now, []];
        yield 'the wrong model' => [$open, [], ['hardwareId' => 'FN7-1'], $now, [['code' => 'wrong-model']]];
        yield 'a model that several variants fit' => [
            $open,
            [],
            ['hardwareId' => null],
            $now,
            [['code' => 'model-unresolved', 'hardwareIds' => ['FN7-1', 'FN7-2'], 'question' => 'plug-in']],
        ];
        yield 'closed, since the end of the latest window' => [
            [['2026-01-01T00:00:00Z', '2026-02-01T00:00:00Z'], ['2026-05-01T00:00:00Z', '2026-09-01T00:00:00Z']],
            [],
            [],
            $now,
            [['code' => 'window-closed', 'since' => '2026-09-01T00:00:00Z']],
        ];
        yield 'closed at the very end, which is exclusive' => [
            [['2026-05-01T00:00:00Z', '2026-11-20T09:00:00Z']],
            [],
            [],
            $now,
            [['code' => 'window-closed', 'since' => '2026-11-20T09:00:00Z']],
        ];
        yield 'open at the very start, which is inclusive' => [[['2026-11-20T09:00:00Z', null]], [], [], $now, []];
        yield 'all windows start later' => [
            [['2026-12-24T00:00:00Z', null], ['2026-12-01T00:00:00Z', '2026-12-10T00:00:00Z']],
            [],
            [],
            $now,
            [['code' => 'window-not-open-yet', 'from' => '2026-12-01T00:00:00Z']],
        ];
        yield 'between two windows it is closed' => [
            [['2026-05-01T00:00:00Z', '2026-09-01T00:00:00Z'], ['2026-12-01T00:00:00Z', null]],
            [],
            [],
            $now,
            [['code' => 'window-closed', 'since' => '2026-09-01T00:00:00Z']],
        ];
        yield 'never signed' => [[], [], [], $now, [['code' => 'window-closed']]];
        yield 'a stale almanac says nothing for sure' => [
            $open,
            [],
            [],
            '2026-11-20T20:00:01Z',
            [['code' => 'almanac-stale']],
        ];
        yield 'fresh until the very moment' => [$open, [], [], '2026-11-20T20:00:00Z', []];
        yield 'what is installed' => [
            $open,
            [],
            ['version' => '8.7.0', 'build' => '8G210'],
            $now,
            [['code' => 'same-build']],
        ];
        yield 'a re-release of what is installed is another build' => [
            $open,
            [],
            ['version' => '8.7.0', 'build' => '8G199'],
            $now,
            [],
        ];
        yield 'below the rollback counter' => [
            $open,
            ['rollbackIndex' => 2, 'radioLevel' => 10],
            [],
            $now,
            [['code' => 'rollback-floor', 'index' => 2, 'counter' => 3]],
        ];
        yield 'everything at once, none left out' => [
            [['2026-05-01T00:00:00Z', '2026-09-01T00:00:00Z']],
            ['rollbackIndex' => 2, 'radioLevel' => 9, 'hostAgentMinimum' => '4.4', 'eraseInstall' => false],
            ['version' => '8.7.0', 'build' => '8G210'],
            '2026-11-21T09:00:00Z',
            [
                ['code' => 'window-closed', 'since' => '2026-09-01T00:00:00Z'],
                ['code' => 'almanac-stale'],
                ['code' => 'rollback-floor', 'index' => 2, 'counter' => 3],
                ['code' => 'radio-mismatch', 'level' => 9, 'minimum' => 10],
                ['code' => 'host-agent-old', 'minimum' => '4.4.0'],
                ['code' => 'not-newer'],
                ['code' => 'not-accepted-in-place'],
                ['code' => 'not-accepted-step-down'],
                ['code' => 'in-place-only'],
                ['code' => 'same-build'],
            ],
        ];
        // with 25 MB to fetch and nothing to back up the permit is asked for after 4 min 34.4 s
        yield 'it ends before its permit can be asked for' => [
            [['2026-05-04T17:00:00Z', '2026-11-20T09:04:34Z']],
            [],
            [],
            $now,
            [['code' => 'closes-too-soon', 'until' => '2026-11-20T09:04:34Z']],
        ];
        yield 'it ends just after' => [[['2026-05-04T17:00:00Z', '2026-11-20T09:04:35Z']], [], [], $now, []];
        yield 'it opens just before its permit' => [[['2026-11-20T09:04:34Z', null]], [], [], $now, []];
        yield 'it opens just after' => [
            [['2026-11-20T09:04:35Z', null]],
            [],
            [],
            $now,
            [['code' => 'window-not-open-yet', 'from' => '2026-11-20T09:04:35Z']],
        ];
        yield 'it opens and ends before its permit' => [
            [['2026-11-20T09:01:00Z', '2026-11-20T09:02:00Z']],
            [],
            [],
            $now,
            [['code' => 'window-not-open-yet', 'from' => '2026-11-20T09:01:00Z']],
        ];
        yield 'windows that touch are one' => [
            [['2026-11-20T09:02:00Z', null], ['2026-05-04T17:00:00Z', '2026-11-20T09:02:00Z']],
            [],
            [],
            $now,
            [],
        ];
        yield 'windows that overlap are one, which ends with the later' => [
            [
                ['2026-05-04T17:00:00Z', '2026-11-20T09:03:00Z'],
                ['2026-11-20T08:00:00Z', '2026-11-20T09:04:00Z'],
                ['2026-11-20T08:10:00Z', '2026-11-20T08:20:00Z'],
            ],
            [],
            [],
            $now,
            [['code' => 'closes-too-soon', 'until' => '2026-11-20T09:04:00Z']],
        ];
        yield 'an unknown rollback counter counts as 0' => [
            $open,
            ['rollbackIndex' => 0],
            ['rollbackCounter' => null],
            $now,
            [],
        ];
        yield 'at the rollback counter' => [$open, ['rollbackIndex' => 3], [], $now, []];
        yield 'at the radio level' => [$open, ['radioLevel' => 10], [], $now, []];
        yield 'below the radio level' => [
            $open,
            ['radioLevel' => 9],
            [],
            $now,
            [['code' => 'radio-mismatch', 'level' => 9, 'minimum' => 10]],
        ];
        yield 'a radio level that is not known is no reason' => [
            $open,
            ['radioLevel' => 0],
            ['radioMinimum' => null],
            $now,
            [],
        ];
        yield 'the very host agent' => [$open, ['hostAgentMinimum' => '4.3'], [], $now, []];
        yield 'an older host agent' => [
            $open,
            ['hostAgentMinimum' => '4.3.1'],
            [],
            $now,
            [['code' => 'host-agent-old', 'minimum' => '4.3.1']],
        ];
        yield 'a host agent that is not known is no reason' => [
            $open,
            ['hostAgentMinimum' => '4.2'],
            [],
            $now,
            [],
            ['hostAgent' => null],
        ];
        yield 'for in-place moves only, and one leads there' => [
            $open,
            ['eraseInstall' => false, 'inPlaceFrom' => '>=8.6 <8.7'],
            ['version' => '8.6.0', 'build' => '8F190'],
            $now,
            [['code' => 'in-place-only']],
        ];
        yield 'an update that would go down, and takes nothing from here' => [
            $open,
            ['eraseInstall' => false, 'inPlaceFrom' => '>=8.6 <8.7'],
            [],
            $now,
            [['code' => 'not-newer'], ['code' => 'not-accepted-in-place'], ['code' => 'in-place-only']],
        ];
        yield 'a step-down from another major that it would take' => [
            $open,
            ['eraseInstall' => false, 'stepDownFrom' => '>=9.0 <9.4'],
            [],
            $now,
            [['code' => 'major-step-in-place'], ['code' => 'in-place-only']],
        ];
        yield 'a step-down that it does not take' => [
            $open,
            ['eraseInstall' => false, 'stepDownFrom' => '>=8.9 <9.0'],
            ['version' => '8.8.0', 'build' => '8H95'],
            $now,
            [['code' => 'not-accepted-step-down'], ['code' => 'in-place-only']],
        ];
        yield 'a closed build that is erased only: its other moves are not spoken of' => [
            [['2026-05-01T00:00:00Z', '2026-09-01T00:00:00Z']],
            [],
            [],
            $now,
            [['code' => 'window-closed', 'since' => '2026-09-01T00:00:00Z']],
        ];
    }
}
