<?php

declare(strict_types=1);

namespace App\Facts;

use App\Almanac\HeldAlmanac;
use App\Almanac\RefreshAlmanac;
use App\Models\BenchJob;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Channel;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Version\Version;

/**
 * Asks the device's vendor anew and makes the plan that a technician most often wants: back to the newest of the
 * major before.
 */
final readonly class FirstPlan
{
    public function __construct(private HeldAlmanac $held, private RefreshAlmanac $refresh, private JobPlanner $planner)
    {
    }

    public function make(BenchJob $job): void
    {
        $device = $job->readDevice();
        $vendor = $this->held->vendorOf($device->osLine);
        if ($vendor?->address !== null) {
            $this->refresh->of($vendor); // where it fails, the held catalogue stays and its age shows
        }
        $this->planner->keep($job, $job->goal ?? $this->goal($job->intent, $device));
    }

    /** Up to the newest release of the device's line; where nothing is above it, that is said of the plan. */
    private function goal(Intent $intent, Device $device): Goal
    {
        $releases = array_filter(
            $this->held->almanac()->builds($device->osLine),
            static fn (Build $b): bool => $b->channel === Channel::Release,
        );
        $newest = array_values($releases)[0] ?? null;

        return $intent === Intent::TakeUp && $newest !== null
            ? Goal::exact($newest->version)
            : self::usual($device->version);
    }

    public static function usual(Version $version): Goal
    {
        return Goal::newestInMajor(max(0, $version->major - 1));
    }
}
