<?php

declare(strict_types=1);

namespace Tests\Fault;

use PHPUnit\Framework\TestCase;

/** A few seeded runs in which people do anything; bin/measure acts makes as many as one likes. */
final class ActTest extends TestCase
{
    private const SEEDS = [1, 2, 3];

    public function test_whatever_people_do_nothing_is_lost_and_every_job_can_be_ended(): void
    {
        $runs = ActRuns::start();
        $broken = [];
        foreach (self::SEEDS as $seed) {
            $broken["seed {$seed}"] = $runs->one($seed)['broken'];
        }
        $done = $runs->done();
        $runs->stop();

        self::assertSame([], array_filter($broken));
        self::assertGreaterThan(25, count($done), 'the seeds reach most of what can be done');
    }
}
