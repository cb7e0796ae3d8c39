<?php

declare(strict_types=1);

namespace App\Steps;

use App\Benches\Rates;
use App\Facts\BaseOfJob;
use App\Facts\OpenedBags;
use App\Facts\ReturnEvidence;
use App\Journal\Evidence;
use App\Ledger\Progress;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Ledger\Tally;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Exception\Declined;
use App\Ports\Operation;
use JadeStep\Core\Bag\BagContent;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\KeySet;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\Record\RefusedBase;
use JadeStep\Core\Job\WayBack\FromCloud;
use JadeStep\Core\Route\Measured;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/**
 * Reads the owner lock again, offers the lowered copy (or the backup as it is) to the device, sends what it does not
 * hold yet, and commits. The device has the last word.
 */
final readonly class PutBack implements Step
{
    /** With these the device says no to the backup, and not to the moment. */
    private const REFUSES_THE_BACKUP = ['backup-too-new', 'backup-not-taken'];

    /** It restarts, or ends other work. */
    private const NOT_AT_THIS_MOMENT = ['busy', 'not-in-normal-mode'];

    public function __construct(
        private DeviceLink $link,
        private OpenedBags $opened,
        private BaseOfJob $base,
        private ReadBase $reading,
        private Rates $rates,
        private ReturnEvidence $evidence,
        private CloudReturn $cloud,
        private ClockInterface $clock,
    ) {
    }

    public function run(RunningStep $step): StepEnd
    {
        if ($step->job->return()?->way instanceof FromCloud) {
            return $this->cloud->run($step);
        }
        if (! BaseOfJob::isWanted($step->job)) {
            return StepEnd::done(new Evidence(['backup' => $step->job->return()?->way->mode()->value]));
        }
        $bag = $this->base->whole($step->job);
        if ($bag === null) {
            return StepEnd::failedBecause(BaseOfJob::missing());
        }
        $operation = $this->committed($step);
        if ($operation === null && ! $this->reading->isTrusted($bag, $step->readingBack($bag->bytes))) {
            return StepEnd::failedBecause(BaseOfJob::missing());
        }
        $operation ??= $this->offer($step, $bag);

        return $operation instanceof StepEnd ? $operation : $this->follow($step, $bag, $operation);
    }

    private function follow(RunningStep $step, Bag $bag, Operation $operation): StepEnd
    {
        $end = $step->watch($this->link, $operation);
        if ($end instanceof StepEnd) {
            return $end;
        }
        if (! $end->succeeded()) {
            $step->remember(operation: null); // a new try commits anew

            $what = $end->error === 'cable-out'
                ? 'The cable came out while the device was taking the data in, and it broke the return off. Put it in '
                    .'again, another one if need be'
                : 'The device broke the return off while it was taking the data in';

            return StepEnd::failed(
                ProblemCode::ReturnFailed,
                "{$what}. What it has of it is not whole; the backup is untouched. Try again, and all of it is put "
                    .'back anew; or choose another backup.',
            );
        }
        $memory = $step->memory();

        return StepEnd::done(new Evidence([
            'backup' => $bag->id,
            'declared' => $memory->maybeString('declared'),
            'owner lock' => "off, read {$memory->maybeString('lockReadAt')}",
        ]));
    }

    /**
     * The return that an earlier run has committed; the device may have forgotten it, but not what it holds already.
     */
    private function committed(RunningStep $step): ?Operation
    {
        $id = $step->memory()->maybeString('operation');
        try {
            return $id === null ? null : $this->link->operation($step->job->serial, $id);
        } catch (Declined $e) {
            $e->reason === 'no-such-operation' ? $step->remember(operation: null) : throw $e;

            return null;
        }
    }

    private function offer(RunningStep $step, Bag $base): Operation|StepEnd
    {
        $bag = $step->job->loweredCopy($base->id) ?? $base;
        $content = $this->opened->tried(
            $step->job,
            $bag,
            'with it the backup is opened, to put its data back',
        );
        if ($content instanceof Problem) {
            return StepEnd::wantedBecause($content);
        }
        $reading = $this->link->read($step->job->serial);
        if ($reading->isLocked()) {
            return self::ownerLockIsOn();
        }
        $step->remember(lockReadAt: Rfc3339::format($this->clock->now()), declared: $bag->declared_version);
        try {
            $operation = $this->link->commitReturn(
                $step->job->serial,
                $this->send($step, $bag, $content, $reading->practice),
            );
        } catch (Declined $e) {
            return $this->refused($step, $base, $reading, $e);
        }
        $step->remember(operation: $operation->id);

        return $operation;
    }

    public static function ownerLockIsOn(): StepEnd
    {
        return StepEnd::waiting(
            2,
            ProblemCode::OwnerLockOn,
            'The owner lock is on again, and the device takes no data while it is. Have the owner switch it off '
                .'on the device; it then goes on by itself.',
        );
    }

    private function refused(RunningStep $step, Bag $base, DeviceReading $reading, Declined $e): StepEnd
    {
        if ($e->reason === ProblemCode::OwnerLockOn->value) {
            return self::ownerLockIsOn();
        }
        if (in_array($e->reason, self::NOT_AT_THIS_MOMENT, true)) {
            return StepEnd::again(1);
        }
        if (! in_array($e->reason, self::REFUSES_THE_BACKUP, true)) {
            throw $e;
        }
        $this->evidence->wasRefused($step->job, $base, $reading->device->version);
        $said = new RefusedBase($base->id, $e->getMessage(), $this->clock->now());
        $step->mark(static fn (BenchJob $job) => $job->update(['refused_bases' => [...$job->refused_bases, $said]]));

        return StepEnd::failedBecause(
            Problem::told(
                $e->reason,
                "The device says: {$e->getMessage()} Nothing was changed on it. Try again, or choose what is "
                    .'put back instead.',
            ),
        );
    }

    private function send(RunningStep $step, Bag $bag, BagContent $content, bool $practice): string
    {
        $inventory = $content->inventory();
        $serial = $step->job->serial;
        $return = $this->link->offerReturn($serial, $bag->declared_version, $inventory);
        $there = KeySet::of($this->link->returned($serial, $return));
        $whole = $inventory->bytes();
        [$done, $sent, $started] = [0, 0, microtime(true)];
        $tally = new Tally($inventory->counts());
        $step->tally($tally);
        $give = static function (callable $send) use ($content, $step, $there, $whole, &$done, &$sent, $tally): void {
            $content->each(static function (Item $item, callable $read) use (
                $send,
                $step,
                $there,
                $whole,
                &$done,
                &$sent,
                $tally,
            ): void {
                $step->progress(PhaseCode::Send, Progress::ofBytes($done, $whole), Kind::tryFrom($item->kind));
                if (! $there->has($item->key())) {
                    $send($item, self::beating($step, $read));
                    $sent += $item->bytes;
                }
                $done += $item->bytes;
                $tally->count($item->kind);
            });
        };
        $this->link->sendItems($serial, $return, $give, $step->beat(...));
        $step->remember(tally: $tally->fields());
        if (! $practice) {
            $this->rates->moved(
                Measured::Return,
                $sent,
                microtime(true) - $started,
                $step->job->bench_id,
                $step->job->id,
            );
        }

        return $return;
    }

    /**
     * The same pieces, with a word that the step is still there at each of them.
     *
     * @param  callable(int): string  $read
     * @return callable(int): string
     */
    public static function beating(RunningStep $step, callable $read): callable
    {
        return static function (int $most) use ($step, $read): string {
            $step->beat();

            return $read($most);
        };
    }
}
