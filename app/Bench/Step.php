<?php

declare(strict_types=1);

namespace App\Bench;

use App\Ports\Exception\LinkLost;
use App\Ports\Exception\Refused;

/**
 * One machine step of a job. It may be run again at any time, after any crash: it looks at what is there before it
 * does anything.
 */
interface Step
{
    /** @throws LinkLost|Refused which the runner turns into waiting or failing */
    public function run(StepContext $context): Outcome;
}
