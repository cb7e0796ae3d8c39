<?php

declare(strict_types=1);

namespace App\Facts;

use App\Almanac\HeldAlmanac;
use App\Almanac\RefreshAlmanac;
use App\Models\BenchJob;
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
        $this->planner->keep($job, $job->goal ?? self::usual($device->version));
    }

    public static function usual(Version $version): Goal
    {
        return Goal::newestInMajor(max(0, $version->major - 1));
    }
}
