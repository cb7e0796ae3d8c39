<?php

declare(strict_types=1);

namespace App\Ledger;

/** Calls a worker to a step. The step's row says whether there is anything to do; a call too many does no harm. */
interface StepBell
{
    public function ring(int $stepId, int $delaySeconds = 0): void;
}
