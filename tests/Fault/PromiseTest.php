<?php

declare(strict_types=1);

namespace Tests\Fault;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/**
 * The ledger's promise for each kind is what the independent device then delivers; `bin/measure promise` runs more
 * seeds.
 */
final class PromiseTest extends TestCase
{
    private const RUNS = 100;

    public function test_every_kind_ends_as_the_ledger_promised(): void
    {
        $root = sys_get_temp_dir().'/jade-step-promise-'.getmypid();
        $runs = new PromiseRuns($root);
        [$wrong, $kinds, $by, $outcomes, $faults] = [[], 0, [], [], 0];
        for ($seed = 1; $seed <= self::RUNS; $seed++) {
            $run = $runs->one($seed);
            $kinds += $run['kinds'];
            $faults += count($run['faults']);
            $by[$run['choice']] = ($by[$run['choice']] ?? 0) + 1;
            foreach ($run['outcomes'] as $outcome => $many) {
                $outcomes[$outcome] = ($outcomes[$outcome] ?? 0) + $many;
            }
            $run['disagreements'] === [] ?: $wrong[$seed] = $run['disagreements'];
        }
        (new Process(['rm', '-rf', $root]))->run();
        fwrite(
            STDERR,
            sprintf(
                "\n%d runs, %d promises on kinds, %d faults, %d disagreements (%s)\n",
                self::RUNS,
                $kinds,
                $faults,
                count($wrong),
                implode(', ', array_map(static fn (string $n, int $c): string => "{$n}: {$c}", array_keys($by), $by)),
            ),
        );

        self::assertSame([], $wrong);
        self::assertGreaterThan(1200, $kinds);
        self::assertCount(
            7,
            $outcomes,
            'the seeds reach every outcome but one that needs no erase: '.implode(', ', array_keys($outcomes)),
        );
        self::assertGreaterThan(5, count($by), 'the seeds reach every way of putting data back');
    }
}
