<?php

declare(strict_types=1);

namespace Tests\Fault;

use PHPUnit\Framework\TestCase;

/** Some seeded runs; bin/measure acts makes as many as one likes. */
final class ActTest extends TestCase
{
    private const RUNS = 8;

    public function test_whatever_people_do_nothing_is_lost_and_every_job_can_be_ended(): void
    {
        $runs = ActRuns::start();
        $broken = [];
        for ($seed = 1; $seed <= self::RUNS; $seed++) {
            $broken["seed {$seed}"] = $runs->one($seed)['broken'];
        }
        $done = $runs->done();
        $runs->stop();

        self::assertSame([], array_filter($broken));
        self::assertGreaterThan(30, count($done), 'the seeds reach most of what can be done');
    }
}
