<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Ports\DeviceLink;
use App\Ports\Work;

/** Takes the device through its set-up after the data is back. */
final readonly class SetUp implements Step
{
    public function __construct(private DeviceLink $link)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $reading = $this->link->read($context->job->serial);
        if ($reading->setUp) {
            return Outcome::done();
        }
        $end = $context->watch($this->link, $this->link->start($context->job->serial, Work::SetUp));

        return match (true) {
            $end instanceof Outcome => $end,
            $end->succeeded() => Outcome::again(0),
            default => Outcome::failed('set-up-failed', 'The device did not finish its set-up. Try again.'),
        };
    }
}
