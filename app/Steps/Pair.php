<?php

declare(strict_types=1);

namespace App\Steps;

use App\Facts\FirstPlan;
use App\Journal\Evidence;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\Exception\Declined;
use App\Ports\Work;
use JadeStep\Core\Device\Differences;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Job\ProblemCode;

/** Has the device say yes to this computer, and reads what it is and what it holds. */
final readonly class Pair implements Step
{
    public function __construct(private DeviceLink $link, private ReadDevice $device, private FirstPlan $plan)
    {
    }

    public function run(RunningStep $step): StepEnd
    {
        $step->progress(PhaseCode::Read);
        try {
            $reading = $this->link->read($step->job->serial);
        } catch (Declined $e) {
            return $step->job->said === null
                ? throw $e
                : StepEnd::wanted(
                    ProblemCode::PlugInWanted,
                    'This device was taken in by hand. Plug it in when it is here: it is known by its serial or '
                        .'IMEI and then goes on by itself.',
                );
        }
        if (! $reading->isPaired()) {
            $operation = $step->watch($this->link, $this->link->start($step->job->serial, Work::Pair));
            if ($operation instanceof StepEnd) {
                return $operation;
            }
            if (! $operation->succeeded()) {
                return StepEnd::failed(
                    ProblemCode::ConsentRefused,
                    'The device did not say yes to this computer. Unlock it and try again.',
                );
            }
        }
        $this->read($step->job);
        if ($step->job->intent->crosses()) {
            $this->plan->make($step->job);
        }
        $device = $step->job->readDevice();

        return StepEnd::done(new Evidence([
            'hardware id' => $device->hardwareId,
            'version' => (string) $device->version,
            'build' => $device->build,
        ]));
    }

    /** Where something was said of the device before, it is held against what the device tells. */
    private function read(BenchJob $job): void
    {
        $before =
            $job->said === null
                ? null
                : $job->said->told() + [
                    'modelName' => $job->device?->modelName,
                    'hardwareId' => $job->device?->hardwareId,
                    'osLine' => $job->device?->osLine,
                ];
        $reading = $this->device->into($job);
        $now = $reading->device;
        $before === null
            || $job->update([
                'differences' => Differences::between($before, [
                    'serial' => $now->serial,
                    'imei' => $reading->imei,
                    'modelName' => $now->modelName,
                    'hardwareId' => $now->hardwareId,
                    'osLine' => $now->osLine,
                    'version' => (string) $now->version,
                    'build' => $now->build,
                ]),
            ]);
    }
}
