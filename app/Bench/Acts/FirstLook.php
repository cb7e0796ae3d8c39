<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Almanac\HeldAlmanac;
use App\Almanac\RefreshAlmanac;
use App\Models\BenchJob;

/** Asks the device's vendor anew and makes the plan that a technician most often wants: back to the newest of the major before. */
final readonly class FirstLook
{
    public function __construct(private HeldAlmanac $held, private RefreshAlmanac $refresh, private PlanJob $plan)
    {
    }

    public function at(BenchJob $job): void
    {
        $vendor = $this->held->vendorOf($job->device['osLine'] ?? '');
        if ($vendor?->address !== null) {
            $this->refresh->of($vendor); // where it fails, the held catalogue stays and its age shows
        }
        $this->plan->for($job, $job->goal ?? self::usual($job->device['version'] ?? '0'));
    }

    /** @return array<string, int> */
    public static function usual(string $version): array
    {
        return ['newestInMajor' => max(0, (int) $version - 1)];
    }
}
