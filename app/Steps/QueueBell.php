<?php

declare(strict_types=1);

namespace App\Steps;

use App\Ledger\StepBell;

/** Calls a worker through the queue. */
final class QueueBell implements StepBell
{
    public function ring(int $stepId, int $delaySeconds = 0): void
    {
        $call = RunStep::dispatch($stepId);
        if ($delaySeconds > 0) {
            $call->delay($delaySeconds);
        }
    }
}
