<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\Exception\Refusal;
use App\Bench\Journal;
use App\Bench\StepCode;
use App\Bench\StepState;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Exception\Refused;
use App\Ports\Work;
use Illuminate\Support\Facades\DB;

/** The two hands at recovery mode: to have the device asked over the cable instead of by its keys, and the way out without writing. */
final readonly class Recovery
{
    public function __construct(private Journal $journal, private DeviceLink $link)
    {
    }

    public function askOverCable(BenchJob $job): void
    {
        $step = $job->step(StepCode::EnterRecovery);
        if (! in_array($step->state, [StepState::Ready, StepState::Running], true)) {
            throw Refusal::notNow('The device is asked over the cable when its keys are waited for.');
        }
        $step->newQuery()->whereKey($step->id)->update(['data' => json_encode(['byCable' => true] + ($step->data ?? []), JSON_THROW_ON_ERROR)]);
    }

    /** Until the device has been told to install, it leaves recovery mode as it was, and the job stands before the erase line again. */
    public function leave(BenchJob $job): void
    {
        DB::transaction(function () use ($job): void {
            BenchJob::query()->whereKey($job->id)->lockForUpdate()->value('id');
            $job->refresh();
            if (! self::mayLeave($job)) {
                throw Refusal::notNow($job->install_begun_at === null ? 'The device is not on its way to an install; there is nothing to leave.' : 'The device has been told to install: from there it only goes forward.');
            }
            $job->update(['line_crossed_at' => null, 'line_crossed_by' => null, 'line_checks' => null]);
            $this->journal->rewind($job, [StepCode::CrossLine, StepCode::ProveSafety]);
            $this->journal->layOut($job, StepCode::fromLineOn(count($job->route['legs'] ?? []), ($job->route['erases'] ?? 0) > 0));
        });
        $this->bringBack($job);
    }

    public static function mayLeave(BenchJob $job): bool
    {
        return $job->line_crossed_at !== null && $job->install_begun_at === null;
    }

    private function bringBack(BenchJob $job): void
    {
        try {
            $this->link->read($job->serial)->mode === DeviceReading::RECOVERY ? $this->link->start($job->serial, Work::LeaveRecovery) : null;
        } catch (Refused $e) {
            $e->reason === 'no-such-device' || throw $e;
            // out of its cable it stays as it is; its own keys lead out of recovery mode too
        }
    }
}
