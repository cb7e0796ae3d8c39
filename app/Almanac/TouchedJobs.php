<?php

declare(strict_types=1);

namespace App\Almanac;

use App\Facts\ChecksOfJob;
use App\Facts\JobPlanner;
use App\Models\BenchJob;
use JadeStep\Core\Almanac\Change;
use JadeStep\Core\Job\Record\AlmanacFlag;
use Psr\Clock\ClockInterface;

/**
 * Plans the open jobs again that a change of the almanac touches, and flags them. Past the erase line nothing is
 * planned.
 */
final readonly class TouchedJobs
{
    public function __construct(private JobPlanner $planner, private ChecksOfJob $checks, private ClockInterface $clock)
    {
    }

    /** @param  list<Change>  $changes */
    public function by(array $changes): void
    {
        if ($changes === []) {
            return;
        }
        $jobs = BenchJob::open()
            ->where('line_crossed_at', null)
            ->where('device', '!=', null)
            ->where('goal', '!=', null)
            ->get();
        foreach ($jobs as $job) {
            $device = $job->readDevice();
            $mine = array_filter(
                $changes,
                static fn (Change $c): bool => $c->touches($device->osLine, $device->hardwareId),
            );
            if ($mine !== []) {
                $this->flag($job, array_values(array_map(static fn (Change $c): string => $c->words, $mine)));
            }
        }
    }

    /** @param  list<string>  $words */
    private function flag(BenchJob $job, array $words): void
    {
        if ($job->route === null && $job->goal !== null) {
            $this->planner->keep($job, $job->goal);
        }
        $job->update(['flag' => AlmanacFlag::adding($job->flag, $words, $this->clock->now())]);
        $this->checks->keep($job);
    }
}
