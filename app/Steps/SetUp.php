<?php

declare(strict_types=1);

namespace App\Steps;

use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Ports\DeviceLink;
use App\Ports\Work;
use JadeStep\Core\Job\ProblemCode;

/** Takes the device through its set-up after the data is back. */
final readonly class SetUp implements Step
{
    public function __construct(private DeviceLink $link)
    {
    }

    public function run(RunningStep $step): StepEnd
    {
        if ($this->link->read($step->job->serial)->setUp) {
            return StepEnd::done();
        }
        $end = $step->watch($this->link, $this->link->start($step->job->serial, Work::SetUp));

        return match (true) {
            $end instanceof StepEnd => $end,
            $end->succeeded() => StepEnd::again(0),
            default => StepEnd::failed(ProblemCode::SetUpFailed, 'The device did not finish its set-up. Try again.'),
        };
    }
}
