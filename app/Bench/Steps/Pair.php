<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\Acts\PlanJob;
use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Ports\DeviceLink;
use App\Ports\Work;

/** Has the device say yes to this computer, and reads what it is and what it holds. */
final readonly class Pair implements Step
{
    public function __construct(private DeviceLink $link, private ReadDevice $device, private PlanJob $plan)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $context->progress('read');
        $reading = $this->link->read($context->job->serial);
        if (! $reading->paired) {
            $operation = $context->watch($this->link, $this->link->start($context->job->serial, Work::Pair));
            if ($operation === null) {
                return Outcome::again(1, 'consent-wanted', 'The device wants its holder\'s consent: unlock it and say yes on its screen.');
            }
            if (! $operation->succeeded()) {
                return Outcome::failed('consent-refused', 'The device did not say yes to this computer. Unlock it and try again.');
            }
        }
        $this->device->into($context->job);
        $this->plan->firstLook($context->job);

        return Outcome::done();
    }
}
