<?php

declare(strict_types=1);

namespace Tests\Reference;

use JadeStep\Core\Batch\Batch;
use JadeStep\Core\Batch\Effort;
use JadeStep\Core\Batch\Schedule;
use JadeStep\Core\Batch\Scheduler;
use JadeStep\Core\Tests\Batch\Shops;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Symfony\Component\Process\Process;

/**
 * Schedules of middling batches held against MiniZinc with Gecode (Debian's minizinc), with every resource as a
 * cumulative constraint and a port as one from a device's first step to its last.
 */
final class ConstraintSolverTest extends TestCase
{
    /** Milliseconds that the solver may look for a better schedule. */
    private const LOOKS = 4_000;

    private const MODEL = <<<'MZN'
        include "cumulative.mzn";
        int: steps; int: jobs; int: kinds; int: ports; int: most;
        array[1..steps] of int: takes;
        array[1..steps] of int: job;
        array[1..steps, 1..kinds] of 0..1: needs;
        array[1..kinds] of int: units;
        array[1..jobs] of int: first;
        array[1..jobs] of int: final;
        array[1..steps] of int: told;
        array[1..steps] of var 0..most: start;
        array[1..jobs] of var 0..most: held;
        var 0..most: done;
        constraint forall(i in 1..steps - 1 where job[i] = job[i + 1])(start[i] + takes[i] <= start[i + 1]);
        constraint forall(k in 1..kinds)(cumulative(start, takes, [needs[i, k] | i in 1..steps], units[k]));
        constraint forall(j in 1..jobs)(held[j] = start[final[j]] + takes[final[j]] - start[first[j]]);
        constraint cumulative([start[first[j]] | j in 1..jobs], held, [1 | j in 1..jobs], ports);
        constraint forall(j in 1..jobs)(start[final[j]] + takes[final[j]] <= done);
        MZN;

    public function test_the_solver_finds_no_rule_broken_and_hardly_anything_shorter(): void
    {
        $gaps = [];
        for ($seed = 1; $seed <= 3; $seed++) {
            $schedule = Scheduler::schedule(self::drawn($seed), Effort::usual($seed));
            $minutes = (int) round(Shops::makespan($schedule));
            $fixed = 'constraint forall(i in 1..steps)(start[i] = told[i]); solve satisfy;';
            self::assertSame($minutes, self::solved($schedule, $minutes, $fixed), "seed {$seed} is not kept");
            $search = 'solve :: int_search(start, smallest, indomain_min) minimize done;';
            $found = self::solved($schedule, 2 * $minutes, $search);
            self::assertNotNull($found, "seed {$seed}: the solver finds nothing");
            $gaps[] = ($minutes - $found) / $found;
        }
        fwrite(STDERR, sprintf(
            "\n%d middling batches: at most %.2f %% longer than what the solver finds in %d s\n",
            count($gaps),
            100 * max($gaps),
            self::LOOKS / 1000,
        ));
        self::assertLessThan(0.05, array_sum($gaps) / count($gaps));
    }

    public function test_the_solver_refuses_a_schedule_that_breaks_a_rule(): void
    {
        // the same batch, with one technician fewer than the schedule was made for
        $schedule = Scheduler::schedule(self::drawn(1), Effort::usual(1));
        $minutes = (int) round(Shops::makespan($schedule));

        self::assertNull(self::solved(
            $schedule,
            $minutes,
            'constraint forall(i in 1..steps)(start[i] = told[i]); solve satisfy;',
            ['hands' => 1],
        ));
    }

    /** Twelve devices with six to eight steps on four ports. */
    private static function drawn(int $seed): Batch
    {
        $chance = new Randomizer(new Mt19937($seed));
        $jobs = [];
        for ($job = 0; $job < 12; $job++) {
            $size = $chance->getInt(2, 12);
            $jobs[] = [
                [['port', 'hands'], $chance->getInt(1, 4)],
                [['port', 'worker', 'disk'], 2 * $size],
                [['port', 'hands'], $chance->getInt(1, 3)],
                [['port', 'worker'], $chance->getInt(8, 15)],
                [['port', 'hands'], $chance->getInt(3, 8)],
                [['port', 'worker', 'disk'], 3 * $size],
                [['port', 'hands'], $chance->getInt(1, 4)],
            ];
        }

        return Shops::batch($jobs, ['port' => 4, 'hands' => 2, 'worker' => 4, 'disk' => 2]);
    }

    /**
     * @param  array<string, int>  $units  in the place of those of the batch
     * @return int|null when all is done, in minutes; null where no schedule is possible
     */
    private static function solved(Schedule $schedule, int $most, string $solve, array $units = []): ?int
    {
        $file = tempnam(sys_get_temp_dir(), 'shop').'.mzn';
        $output = "output [\"done \\(done)\\n\"];\n";
        file_put_contents($file, self::MODEL.self::data($schedule, $most, $units)."{$solve}\n{$output}");
        try {
            $solver = new Process([
                'minizinc', '--solver', 'gecode', '--time-limit', (string) self::LOOKS, $file,
            ], null, ['LC_ALL' => 'C.UTF-8'], null, 120);
            $told = $solver->mustRun()->getOutput();
        } finally {
            unlink($file);
        }

        return preg_match('/^done (\d+)$/m', $told, $found) === 1 ? (int) $found[1] : null;
    }

    /** @param  array<string, int>  $units */
    private static function data(Schedule $schedule, int $most, array $units): string
    {
        $batch = $schedule->batch;
        $all = $units + $batch->workshop->units;
        $kinds = array_values(array_diff(array_keys($all), ['port']));
        $rows = ['takes' => [], 'job' => [], 'needs' => [], 'first' => [], 'final' => [], 'told' => []];
        foreach ($batch->devices as $job => $device) {
            $rows['first'][] = count($rows['takes']) + 1;
            foreach ($device->steps as $step) {
                $rows['takes'][] = (int) $step->minutes->likely;
                $rows['job'][] = $job + 1;
                foreach ($kinds as $kind) {
                    $rows['needs'][] = in_array($kind, $step->needs, true) ? 1 : 0;
                }
            }
            $rows['final'][] = count($rows['takes']);
        }
        foreach ($schedule->steps as $placed) {
            $at = $rows['first'][(int) $placed->device] - 1 + $placed->step;
            $rows['told'][$at] = (int) round($batch->seconds($placed->startsAt) / 60);
        }
        ksort($rows['told']);
        $rows['units'] = array_map(static fn (string $kind): int => $all[$kind], $kinds);
        $list = static fn (array $numbers): string => '['.implode(', ', $numbers).']';
        $steps = count($rows['takes']);
        $text = "\nsteps = {$steps}; jobs = ".count($batch->devices).'; kinds = '.count($kinds)
            ."; ports = {$all['port']}; most = {$most};\n";
        foreach ($rows as $name => $numbers) {
            $text .= $name === 'needs'
                ? "needs = array2d(1..{$steps}, 1..".count($kinds).", {$list($numbers)});\n"
                : "{$name} = {$list($numbers)};\n";
        }

        return $text;
    }
}
