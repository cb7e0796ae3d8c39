<?php

declare(strict_types=1);

namespace App\Acts;

use App\Facts\AftercareOfJob;
use App\Facts\JobCloser;
use App\Journal\Evidence;
use App\Ledger\StepLedger;
use App\Models\BenchJob;
use App\Models\User;
use App\Ports\DeviceLink;
use App\Refusal\Refusal;
use JadeStep\Core\Aftercare\AftercareCode;
use JadeStep\Core\Aftercare\AftercareItem;
use JadeStep\Core\Aftercare\AftercareState;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Job;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\Record\AftercareRecord;
use JadeStep\Core\Job\Record\PersonWord;
use JadeStep\Core\Job\Sequence;
use JadeStep\Core\Job\StepCode;
use Psr\Clock\ClockInterface;

/**
 * Ends a job: handed over (done, or done with losses that were named), given back unfinished past the line with the
 * reason, or left before the line with the device as it was; and keeps what is seen and said of the aftercare.
 */
final readonly class EndJob
{
    public function __construct(
        private JobActs $acts,
        private StepLedger $ledger,
        private JobCloser $closer,
        private AftercareOfJob $aftercare,
        private DeviceLink $link,
        private ClockInterface $clock,
    ) {
    }

    /** @param  list<Kind>  $accepted  kinds that are missing something which was not named before, accepted by name */
    public function handOver(BenchJob $job, array $accepted, User $by): void
    {
        $this->acts->carryOut(
            Act::HandOver,
            $job,
            $by,
            function (Job $model) use ($job, $accepted, $by): void {
                $verdict = $model->verdict();
                $open = array_filter(
                    $verdict->unnamedKinds,
                    static fn (Kind $k): bool => ! in_array($k, $accepted, true),
                );
                $open === []
                    || throw Refusal::lossNotAccepted(
                        array_values(array_map(static fn (Kind $k): string => $k->label(), $open)),
                    );
                $this->ledger->doneByHand($job->step(StepCode::HandOver));
                $losses = $verdict->losses();
                $this->closer->close(
                    $job,
                    $losses === [] ? JobState::Done : JobState::DoneWithLosses,
                    $by->name,
                    $losses,
                );
            },
            new Evidence(['accepted' => array_column($accepted, 'value')]),
        );
    }

    /** Past the line the device is only given back unfinished deliberately, with the reason; its bags stay. */
    public function giveBack(BenchJob $job, string $reason, User $by): void
    {
        $this->acts->carryOut(
            Act::GiveBack,
            $job,
            $by,
            function (Job $model) use ($job, $reason, $by): void {
                $this->ledger->stop($job);
                $this->closer->close($job, JobState::Unfinished, $by->name, $model->verdict()->losses(), $reason);
            },
            new Evidence(['reason' => $reason]),
        );
    }

    public function leave(BenchJob $job, User $by): void
    {
        $this->acts->carryOut(Act::Leave, $job, $by, function () use ($job, $by): void {
            $this->ledger->stop($job);
            // nobody writes on at what was being written
            $job->bags()->where('state', BagState::Writing)->update(['state' => BagState::Damaged]);
            $this->closer->close($job, JobState::Abandoned, $by->name);
        });
    }

    /** What was done stands as it was; the hand-over begins again, and a backup that was stopped is another one. */
    public function reopen(BenchJob $job, User $by): void
    {
        $this->acts->carryOut(Act::Reopen, $job, $by, function (Job $model) use ($job): void {
            $this->closer->reopen($job);
            $stopped = array_filter(Sequence::OF_BACKUP, static fn (StepCode $c): bool => ! $model->isDone($c));
            $this->ledger->rewind($job, [...array_values($stopped), StepCode::HandOver]);
        });
    }

    /** Reads of the device what it shows: its owner lock, and whether it is in the beta programme. */
    public function readForAftercare(BenchJob $job, User $by): void
    {
        $this->acts->carryOut(Act::ReadForAftercare, $job, $by, function () use ($job): void {
            $device = $this->link->read($job->serial)->device;
            $record = $job->aftercare ?? AftercareRecord::none();
            $job->update([
                'aftercare' => $record->read($device->ownerLock, $device->betaEnrolled, $this->clock->now()),
            ]);
        });
    }

    /** @param  bool  $done  false takes one's word back */
    public function tickAftercare(BenchJob $job, AftercareCode $code, bool $done, User $by): void
    {
        $this->acts->carryOut(
            Act::TickAftercare,
            $job,
            $by,
            function () use ($job, $code, $done, $by): void {
                $items = array_filter(
                    $this->aftercare->of($job),
                    static fn (AftercareItem $i): bool => $i->code === $code,
                );
                $item = array_values($items)[0] ?? throw Refusal::notNow('This job has no such aftercare.');
                in_array($item->state, [AftercareState::Open, AftercareState::Attested], true)
                    || throw Refusal::notNow('There is nothing to say of this: the device shows it, or it is told.');
                $record = $job->aftercare ?? AftercareRecord::none();
                $word = new PersonWord($by->name, $this->clock->now());
                $job->update(['aftercare' => $done ? $record->said($code, $word) : $record->takenBack($code)]);
            },
            new Evidence(['point' => $code->value, 'done' => $done]),
        );
    }
}
