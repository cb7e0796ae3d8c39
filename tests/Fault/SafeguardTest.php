<?php

declare(strict_types=1);

namespace Tests\Fault;

use PHPUnit\Framework\TestCase;

/** A few seeded runs; bin/measure fault makes hundreds. */
final class SafeguardTest extends TestCase
{
    private const RUNS = 5;

    public function test_no_fault_leaves_a_half_bag_that_looks_whole_or_opens_the_line_without_one(): void
    {
        $runs = SafeguardRuns::start();
        $seen = [];
        for ($seed = 1; $seed <= self::RUNS; $seed++) {
            $run = $runs->one($seed);
            self::assertSame(
                [],
                $run['faults'],
                "seed {$seed}: {$run['fault']}".($run['encrypted'] ? ', encrypted' : ''),
            );
            $seen[$run['fault']] = true;
        }
        $runs->stop();

        self::assertGreaterThan(3, count($seen), 'the seeds reach most faults');
    }
}
