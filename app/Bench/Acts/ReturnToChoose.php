<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\Journal;
use App\Bench\StepCode;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Exception\LinkLost;
use App\Ports\Exception\Refused;
use App\Ports\Work;
use Illuminate\Support\Facades\DB;

/** Takes a job whose route cannot be gone back to Choose. Nothing was erased; the backups are kept. */
final readonly class ReturnToChoose
{
    private const REWOUND = [StepCode::ChooseRoute, StepCode::FetchPackage, StepCode::CrossLine, StepCode::ProveSafety];

    public function __construct(private Journal $journal, private FirstLook $look, private DeviceLink $link)
    {
    }

    /** @param  array{code: string, detail: string}|null  $problem */
    public function because(BenchJob $job, ?array $problem): void
    {
        try {
            if ($this->link->read($job->serial)->mode === DeviceReading::RECOVERY) {
                $this->link->start($job->serial, Work::LeaveRecovery);
            }
        } catch (LinkLost|Refused) {
            // it stays in recovery mode, which loses nothing
        }
        DB::transaction(function () use ($job, $problem): void {
            $job->update(['route' => null, 'accepted' => null, 'line_crossed_at' => null, 'line_crossed_by' => null, 'line_checks' => null, 'return_choice' => null]);
            $this->journal->rewind($job, self::REWOUND, $problem);
            $this->journal->layOut($job, StepCode::fromLineOn(1, true));
        });
        $this->look->at($job);
    }
}
