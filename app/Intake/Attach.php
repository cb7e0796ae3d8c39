<?php

declare(strict_types=1);

namespace App\Intake;

use App\Bench\Exception\Refusal;
use App\Bench\Journal;
use App\Bench\StepCode;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Support\Facades\DB;

/** Gives a job that was opened by hand the device that is plugged in now. What differs from what was said is shown afterwards. */
final readonly class Attach
{
    public function __construct(private DeviceLink $link, private Journal $journal)
    {
    }

    public function device(BenchJob $job, string $serial): void
    {
        if (! Waiting::isWaiting($job)) {
            throw Refusal::notNow('This job has its device already.');
        }
        $serial = $this->link->read($serial)->serial;
        try {
            DB::transaction(function () use ($job, $serial): void {
                $job->update(['serial' => $serial, 'held_serial' => $serial]);
                $this->journal->goOn($job->step(StepCode::Pair));
            });
        } catch (UniqueConstraintViolationException) {
            throw Refusal::deviceHeld($serial);
        }
    }
}
