<?php

declare(strict_types=1);

namespace App\Steps;

use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;

/**
 * One machine step of a job. It may be run again at any time, after any crash: it looks at what is there before it
 * does anything.
 */
interface Step
{
    /** @throws LinkLost|Declined which the runner turns into waiting or failing */
    public function run(RunningStep $step): StepEnd;
}
