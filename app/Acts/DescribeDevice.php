<?php

declare(strict_types=1);

namespace App\Acts;

use App\Facts\Variant;
use App\Journal\Evidence;
use App\Models\BenchJob;
use App\Models\User;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Record\AboutDevice;

/** Notes whose a device is, how they are reached, what its box says, and anything else that goes with its job. */
final readonly class DescribeDevice
{
    public function __construct(private JobActs $acts, private Variant $variant)
    {
    }

    public function note(BenchJob $job, AboutDevice $about, User $by): void
    {
        $this->acts->carryOut(
            Act::Describe,
            $job,
            $by,
            fn () => $job->update(
                ['about' => $about] + ($job->device === null ? [] : $this->variant->columns($job->device, $about)),
            ),
            new Evidence(['noted' => $about->noted()]),
        );
    }
}
