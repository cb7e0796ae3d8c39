<?php

declare(strict_types=1);

namespace App\Steps;

use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Asks a worker to run one step of a job. It carries the step's number only; the ledger knows the rest. */
final class RunStep implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    /** The ledger counts attempts; the queue may bring the same row as often as it likes. */
    public int $tries = 0;

    public int $timeout = 0;

    public function __construct(public readonly int $stepId)
    {
    }

    public function handle(StepRunner $runner): void
    {
        $runner->run($this->stepId);
    }
}
