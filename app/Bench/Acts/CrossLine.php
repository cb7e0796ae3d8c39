<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\Exception\Refusal;
use App\Bench\JobChecks;
use App\Bench\Journal;
use App\Bench\StepCode;
use App\Models\BenchJob;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Readiness\EraseLine;

/**
 * Takes the technician's deliberate act. It lets the last proof begin, which reads everything anew; only that opens
 * the way to the install.
 */
final readonly class CrossLine
{
    public function __construct(private JobChecks $checks, private Journal $journal)
    {
    }

    public function with(BenchJob $job, string $typedSerial, User $by): void
    {
        if (! EraseLine::names($typedSerial, $job->serial)) {
            throw Refusal::wrongSerial();
        }
        $line = EraseLine::judge($this->checks->asLastSeen($job));
        if (! $line->isOpen()) {
            throw Refusal::lineClosed($line->stopping);
        }
        DB::transaction(function () use ($job, $by): void {
            $job->update(['line_crossed_by' => $by->name]);
            $this->journal->doneByHand($job->step(StepCode::CrossLine));
        });
    }
}
