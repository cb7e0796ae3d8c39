<?php

declare(strict_types=1);

namespace App\Intake;

use App\Facts\JobFacts;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Ledger\StepLedger;
use App\Models\BenchJob;
use App\Models\User;
use App\Ports\DeviceLink;
use App\Refusal\Refusal;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\StepCode;

/**
 * Gives a job that was opened by hand the device that is plugged in now. What differs from what was said is shown
 * afterwards.
 */
final readonly class Attach
{
    public function __construct(
        private DeviceLink $link,
        private StepLedger $ledger,
        private JobFacts $facts,
        private Journal $journal,
    ) {
    }

    /** @param  User|null  $by  null where the bench has recognised it by itself */
    public function device(BenchJob $job, string $serial, ?User $by): void
    {
        $this->facts->assertOpen($job, Act::AttachDevice);
        $serial = $this->link->read($serial)->device->serial;
        try {
            DB::transaction(function () use ($job, $serial, $by): void {
                $job->update(['serial' => $serial, 'held_serial' => $serial]);
                $this->ledger->goOn($job->step(StepCode::Pair));
                if ($by !== null) {
                    $this->journal->note(Act::AttachDevice, $job, $by, new Evidence(['serial' => $serial]));
                }
            });
        } catch (UniqueConstraintViolationException) {
            throw Refusal::deviceHeld($serial);
        }
    }
}
