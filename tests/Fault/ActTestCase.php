<?php

declare(strict_types=1);

namespace Tests\Fault;

use PHPUnit\Framework\TestCase;

/**
 * Seeded runs in which people do anything; bin/measure acts makes as many as one likes. The seeds are dealt out to
 * classes, which run side by side.
 */
abstract class ActTestCase extends TestCase
{
    /** @return list<int> */
    abstract protected function seeds(): array;

    public function test_whatever_people_do_nothing_is_lost_and_every_job_can_be_ended(): void
    {
        $runs = ActRuns::start();
        $broken = [];
        foreach ($this->seeds() as $seed) {
            $broken["seed {$seed}"] = $runs->one($seed)['broken'];
        }
        $done = $runs->done();
        $runs->stop();

        self::assertSame([], array_filter($broken));
        self::assertGreaterThan(30, count($done), 'the seeds reach most of what can be done');
    }
}
