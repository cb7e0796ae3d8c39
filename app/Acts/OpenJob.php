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
use App\Ports\PortReading;
use App\Refusal\Refusal;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\Record\BackupChoice;

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

    /** @param  BackupChoice|null  $backup  how the backup is taken, where that is known from the start */
    public function open(
        string $serial,
        User $by,
        Intent $intent = Intent::TakeDown,
        ?BackupChoice $backup = null,
    ): BenchJob {
        $serial = $this->link->read($serial)->device->serial;
        $this->assertMayBeTaken($serial, $intent);
        $waiting = Waiting::all()->firstWhere('serial', $serial);
        if ($waiting !== null) {
            $intent === $waiting->intent
                || throw Refusal::notNow(
                    "Job {$waiting->id} waits for this device. Leave that job first, or take the device in for it.",
                );
            $this->attach->device($waiting, $serial, $by);

            return $waiting;
        }
        try {
            return DB::connection()->transaction(function () use ($serial, $by, $intent, $backup): BenchJob {
                $job = BenchJob::query()->create([
                    'serial' => $serial,
                    'held_serial' => $serial,
                    'state' => JobState::Open,
                    'opened_by' => $by->id,
                    'intent' => $intent,
                    'backup' => $backup,
                ]);
                $this->ledger->begin($job);
                $this->journal->noteDeed(
                    Deed::TakeIn,
                    $by,
                    new Evidence(['for' => $intent->label()] + ($backup?->fields() ?? [])),
                    null,
                    $job,
                );

                return $job;
            });
        } catch (UniqueConstraintViolationException) {
            throw Refusal::deviceHeld($serial);
        }
    }

    /** What is near by air only is backed up, and never installed or filled. */
    private function assertMayBeTaken(string $serial, Intent $intent): void
    {
        $byAir = array_filter(
            $this->link->ports(),
            static fn (PortReading $p): bool => $p->byAir && $p->serial === $serial,
        );
        $byAir === []
            || $intent === Intent::BackUpOnly
            || throw Refusal::notNow(
                "{$serial} is near by air only. It can be backed up; for anything else plug it in.",
            );
    }
}
