<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\Exception\Refusal;
use App\Bench\JobState;
use App\Bench\Journal;
use App\Intake\Attach;
use App\Intake\Waiting;
use App\Models\BenchJob;
use App\Models\User;
use App\Ports\DeviceLink;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Support\Facades\DB;

/** Opens a job on a plugged-in device, which is held by one job at a time. */
final readonly class OpenJob
{
    public function __construct(private Journal $journal, private DeviceLink $link, private Attach $attach)
    {
    }

    public function on(string $serial, User $by): BenchJob
    {
        $serial = $this->link->read($serial)->serial;
        $waiting = Waiting::all()->firstWhere('serial', $serial);
        if ($waiting !== null) {
            $this->attach->device($waiting, $serial);

            return $waiting;
        }
        try {
            return DB::transaction(function () use ($serial, $by): BenchJob {
                $job = BenchJob::query()->create(['serial' => $serial, 'held_serial' => $serial, 'state' => JobState::Open, 'opened_by' => $by->id]);
                $this->journal->begin($job);

                return $job;
            });
        } catch (UniqueConstraintViolationException) {
            throw Refusal::deviceHeld($serial);
        }
    }
}
