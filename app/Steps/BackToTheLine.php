<?php

declare(strict_types=1);

namespace App\Steps;

use App\Ledger\StepLedger;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceMode;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Ports\Work;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\StepCode;

/** Closes the line again, with everything as it was: it has to be asked for anew. */
final readonly class BackToTheLine
{
    public function __construct(private StepLedger $ledger, private DeviceLink $link)
    {
    }

    /** @param  list<StepCode>  $also  steps that have to be done again before */
    public function take(BenchJob $job, ?Problem $problem, array $also = []): void
    {
        DB::transaction(function () use ($job, $problem, $also): void {
            $wasOpen = $job->lock()->line_crossed_at !== null;
            $job->update(['line_crossed_at' => null, 'line_crossed_by' => null, 'line_checks' => []]);
            $this->ledger->rewind($job, [StepCode::CrossLine, StepCode::ProveSafety, ...$also], $problem);
            if ($wasOpen) {
                $this->ledger->layOutFromLine($job);
            }
        });
        $this->leaveRecovery($job);
    }

    /** Out of its cable it stays as it is; its own keys lead out of recovery mode too. */
    public function leaveRecovery(BenchJob $job): void
    {
        try {
            if ($this->link->read($job->serial)->mode === DeviceMode::Recovery) {
                $this->link->start($job->serial, Work::LeaveRecovery);
            }
        } catch (LinkLost|Declined) {
            // it stays in recovery mode, which loses nothing
        }
    }
}
