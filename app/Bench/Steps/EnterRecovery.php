<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Work;

/** Waits for the device to be in recovery mode. */
final readonly class EnterRecovery implements Step
{
    public function __construct(private DeviceLink $link)
    {
    }

    public function run(StepContext $context): Outcome
    {
        if ($this->link->read($context->job->serial)->mode === DeviceReading::RECOVERY) {
            return Outcome::done();
        }
        $operation = $context->watch($this->link, $this->link->start($context->job->serial, Work::EnterRecovery));

        return match ($operation?->succeeded()) {
            null => Outcome::again(1, 'recovery-wanted', 'The device is not in recovery mode yet: follow its key sequence.'),
            true => Outcome::done(),
            false => Outcome::failed('recovery-failed', 'The device did not enter recovery mode. Nothing was written: try the key sequence again.'),
        };
    }
}
