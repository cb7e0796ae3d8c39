<?php

declare(strict_types=1);

namespace App\Acts;

use App\Intake\Attach;
use App\Intake\Waiting;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Ledger\StepLedger;
use App\Models\BenchJob;
use App\Models\User;
use App\Ports\DeviceLink;
use App\Refusal\Refusal;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Job\JobState;

/** Opens a job on a plugged-in device, which is held by one job at a time. */
final readonly class OpenJob
{
    public function __construct(
        private StepLedger $ledger,
        private DeviceLink $link,
        private Attach $attach,
        private Journal $journal,
    ) {
    }

    public function open(string $serial, User $by): BenchJob
    {
        $serial = $this->link->read($serial)->device->serial;
        $waiting = Waiting::all()->firstWhere('serial', $serial);
        if ($waiting !== null) {
            $this->attach->device($waiting, $serial, $by);

            return $waiting;
        }
        try {
            return DB::connection()->transaction(function () use ($serial, $by): BenchJob {
                $job = BenchJob::query()->create([
                    'serial' => $serial,
                    'held_serial' => $serial,
                    'state' => JobState::Open,
                    'opened_by' => $by->id,
                ]);
                $this->ledger->begin($job);
                $this->journal->noteDeed(Deed::TakeIn, $by, new Evidence, null, $job);

                return $job;
            });
        } catch (UniqueConstraintViolationException) {
            throw Refusal::deviceHeld($serial);
        }
    }
}
