<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\Acts\FirstLook;
use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\Exception\Refused;
use App\Ports\Work;
use JadeStep\Core\Device\Differences;

/** Has the device say yes to this computer, and reads what it is and what it holds. */
final readonly class Pair implements Step
{
    public function __construct(private DeviceLink $link, private ReadDevice $device, private FirstLook $look)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $context->progress('read');
        try {
            $reading = $this->link->read($context->job->serial);
        } catch (Refused $e) {
            return $context->job->said === null ? throw $e : Outcome::wanted('plug-in-wanted', 'This device was taken in by hand. Plug it in when it is here: it is known by its serial or IMEI and then goes on by itself.');
        }
        if (! $reading->paired) {
            $operation = $context->watch($this->link, $this->link->start($context->job->serial, Work::Pair));
            if ($operation instanceof Outcome) {
                return $operation;
            }
            if (! $operation->succeeded()) {
                return Outcome::failed('consent-refused', 'The device did not say yes to this computer. Unlock it and try again.');
            }
        }
        $this->read($context->job);
        $context->job->isBackupOnly() ?: $this->look->at($context->job);

        $device = $context->job->device ?? [];

        return Outcome::done(['hardware id' => $device['hardwareId'] ?? null, 'version' => $device['version'] ?? null, 'build' => $device['build'] ?? null]);
    }

    /** Where something was said of the device before, it is held against what the device tells. */
    private function read(BenchJob $job): void
    {
        $said = $job->said === null ? null : ['serial' => $job->said['serial'], 'imei' => $job->said['imei'], 'version' => $job->said['version'], 'build' => $job->said['build']] + ($job->device ?? []);
        $reading = $this->device->into($job);
        if ($said !== null) {
            $job->update(['differences' => Differences::between($said, ['imei' => $reading->imei] + $reading->facts)]);
        }
    }
}
