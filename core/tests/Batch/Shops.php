<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Batch;

use JadeStep\Core\Batch\Batch;
use JadeStep\Core\Batch\BatchDevice;
use JadeStep\Core\Batch\BatchStep;
use JadeStep\Core\Batch\Schedule;
use JadeStep\Core\Batch\WorkingHours;
use JadeStep\Core\Batch\Workshop;
use JadeStep\Core\Job\Need;
use JadeStep\Core\Route\Minutes;
use JadeStep\Core\Time\Rfc3339;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** Small batches whose steps take whole minutes, and the rules that every schedule of them has to keep. */
final class Shops
{
    public const START = '2026-11-30T07:00:00Z';

    /**
     * @param  list<list<array{string|list<string>, int|Minutes}>>  $jobs  what each step of each needs, and its minutes
     * @param  array<string, int>  $units
     */
    public static function batch(
        array $jobs,
        array $units,
        ?string $deadline = null,
        ?WorkingHours $hours = null,
    ): Batch {
        return new Batch(
            Rfc3339::parse(self::START),
            $deadline === null ? null : Rfc3339::parse($deadline),
            Workshop::ofUnits($units, $hours ?? WorkingHours::always()),
            array_map(self::device(...), array_keys($jobs), $jobs),
        );
    }

    /** @param  list<array{string|list<string>, int|Minutes}>  $steps */
    public static function device(int $at, array $steps): BatchDevice
    {
        return new BatchDevice("d{$at}", "Device {$at}", array_map(
            static fn (int $i, array $s): BatchStep => new BatchStep(
                "s{$i}",
                0,
                $s[1] instanceof Minutes ? $s[1] : Minutes::of($s[1], $s[1], $s[1]),
                (array) $s[0],
                $i === 0 ? [] : [$i - 1],
            ),
            array_keys($steps),
            $steps,
        ));
    }

    /** Two to five devices with two to four steps of one to nine minutes, on ports, by hand and by machine. */
    public static function drawn(int $seed): Batch
    {
        $chance = new Randomizer(new Mt19937($seed));
        $kinds = [['port', 'hands'], ['port', 'worker'], ['port', 'worker', 'disk'], ['port', 'worker', 'line']];
        $jobs = [];
        for ($job = 0, $count = $chance->getInt(2, 5); $job < $count; $job++) {
            $steps = [];
            for ($step = $chance->getInt(2, $count > 3 ? 3 : 4); $step > 0; $step--) {
                $steps[] = [$kinds[$chance->getInt(0, 3)], $chance->getInt(1, 9)];
            }
            $jobs[] = $steps;
        }

        return self::batch($jobs, [
            'port' => $chance->getInt(1, 3),
            'hands' => $chance->getInt(1, 2),
            'worker' => $chance->getInt(1, 2),
            'disk' => 1,
            'line' => 1,
        ]);
    }

    /** @return float minutes from the start */
    public static function makespan(Schedule $schedule): float
    {
        return $schedule->batch->seconds($schedule->finishesAt()) / 60;
    }

    /**
     * What a schedule breaks of the rules, found by looking at every pair of steps.
     *
     * @return list<string>
     */
    public static function broken(Schedule $schedule): array
    {
        $batch = $schedule->batch;
        $broken = [];
        $at = [];
        foreach ($schedule->steps as $placed) {
            $at[$placed->device][$placed->step] = [
                (int) round($batch->seconds($placed->startsAt)),
                (int) round($batch->seconds($placed->endsAt)),
                $placed,
            ];
        }
        foreach ($batch->devices as $d => $device) {
            foreach ($device->steps as $s => $step) {
                [$start, $end] = $at[$d][$s];
                if ($end - $start !== (int) round($step->minutes->expected * 60)) {
                    $broken[] = "{$d}.{$s} does not take its time";
                }
                foreach ($step->after as $before) {
                    if ($at[$d][$before][1] > $start) {
                        $broken[] = "{$d}.{$s} begins before {$before} is done";
                    }
                }
            }
        }
        foreach (array_keys($batch->workshop->units) as $name) {
            $spans = self::spans($batch, $at, $name);
            foreach ($spans as [$from]) {
                $now = array_filter($spans, static fn (array $s): bool => $s[0] <= $from && $from < $s[1]);
                if (count($now) > $batch->workshop->units[$name]) {
                    $broken[] = count($now)." of {$name} at {$from}";
                }
            }
        }

        return $broken;
    }

    /**
     * @param  array<int, array<int, array{int, int}>>  $at
     * @return list<array{int, int}>
     */
    private static function spans(Batch $batch, array $at, string $name): array
    {
        $spans = [];
        foreach ($batch->devices as $d => $device) {
            if ($name === Need::Port->value) {
                $spans[] = [min(array_column($at[$d], 0)), max(array_column($at[$d], 1))];

                continue;
            }
            foreach ($device->steps as $s => $step) {
                if (in_array($name, $step->needs, true)) {
                    $spans[] = [$at[$d][$s][0], $at[$d][$s][1]];
                }
            }
        }

        return $spans;
    }
}
