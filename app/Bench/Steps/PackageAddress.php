<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Models\BenchJob;
use App\Models\HeldCatalogue;
use JadeStep\Core\Almanac\Build;

/** Looks up where a package of a job's plan can be fetched. */
final class PackageAddress
{
    public static function of(BenchJob $job, string $sha256): ?string
    {
        $builds = HeldCatalogue::query()->find($job->catalogue_id)?->catalogue()->builds ?? [];
        $packages = array_merge(...array_map(static fn (Build $b): array => $b->packages, $builds));
        foreach ($packages as $package) {
            if ($package->sha256 === $sha256) {
                return $package->url;
            }
        }

        return null;
    }
}
