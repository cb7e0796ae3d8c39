<?php

declare(strict_types=1);

namespace App\Steps;

use App\Journal\Evidence;
use App\Ledger\Progress;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Models\HeldPackage;
use App\Packages\Fetching;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Route\Leg;

/**
 * Has the packages of all legs on this bench, whole. Where another job fetches one, this one waits for it and shows
 * how far it is.
 */
final readonly class FetchPackage implements Step
{
    public function __construct(private Fetching $fetching)
    {
    }

    public function run(RunningStep $step): StepEnd
    {
        $route = $step->job->takenRoute();
        $whole = $route->packageBytes();
        $before = 0;
        foreach ($route->legs as $leg) {
            $sha256 = $leg->package->sha256;
            $tell = static fn (PhaseCode $phase, int $done) => $step->progress(
                $phase,
                Progress::ofBytes($before + $done, $whole),
            );
            if (! $this->fetching->fetch($sha256, $tell, $step->job->bench_id, $step->job->id)) {
                $step->progress(
                    PhaseCode::WaitForAnotherJob,
                    Progress::ofBytes($before + (HeldPackage::query()->find($sha256)->bytes_done ?? 0), $whole),
                );

                return StepEnd::again(1);
            }
            $before += $leg->package->bytes;
        }
        $names = array_map(static fn (Leg $l): string => $l->package->fileName, $route->legs);
        $digests = array_map(static fn (Leg $l): string => $l->package->sha256, $route->legs);

        return StepEnd::done(new Evidence(['packages' => array_combine($names, $digests)]));
    }
}
