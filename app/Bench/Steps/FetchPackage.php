<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Models\HeldPackage;
use App\Packages\Fetching;

/** Has the packages of all legs on this bench, whole. Where another job fetches one, this one waits for it and shows how far it is. */
final readonly class FetchPackage implements Step
{
    public function __construct(private Fetching $fetching)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $packages = array_column($context->job->route['legs'] ?? [], 'package');
        $whole = array_sum(array_column($packages, 'bytes'));
        $before = 0;
        foreach ($packages as $package) {
            $tell = static fn (string $what, int $done, int $bytes) => $context->progress($what, null, $before + $done, $whole);
            if (! $this->fetching->fetch($package['sha256'], $tell, $context->job->bench_id, $context->job->id)) {
                $context->progress('wait for another job', null, $before + (HeldPackage::query()->find($package['sha256'])->bytes_done ?? 0), $whole);

                return Outcome::again(1);
            }
            $before += $package['bytes'];
        }

        return Outcome::done(['packages' => array_column($packages, 'sha256', 'fileName')]);
    }
}
