<?php

declare(strict_types=1);

namespace App\Acts;

use App\Facts\JobPlanner;
use App\Facts\PassphraseLocker;
use App\Journal\Evidence;
use App\Ledger\StepLedger;
use App\Models\BenchJob;
use App\Models\JobStep;
use App\Models\User;
use App\Ports\DeviceLink;
use App\Ports\Exception\Declined;
use App\Ports\Work;
use App\Refusal\Refusal;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\Record\Attestations;
use JadeStep\Core\Job\Record\BackupChoice;
use JadeStep\Core\Job\Record\CloudWord;
use JadeStep\Core\Job\Record\PersonWord;
use JadeStep\Core\Job\Sequence;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Readiness\Attestation;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Readiness\EraseLine;
use Psr\Clock\ClockInterface;
use Random\Randomizer;

/** What people do before the erase line: how to back up, the passphrase, their word, and the line itself. */
final readonly class Safeguard
{
    public function __construct(
        private JobActs $acts,
        private JobPlanner $planner,
        private StepLedger $ledger,
        private PassphraseLocker $locker,
        private DeviceLink $link,
        private ClockInterface $clock,
    ) {
    }

    /** Before a route is taken, since it changes what comes back. */
    public function chooseBackup(BenchJob $job, BackupChoice $choice, User $by): void
    {
        $this->acts->carryOut(
            Act::ChooseBackup,
            $job,
            $by,
            function () use ($job, $choice): void {
                $job->update(['backup' => $choice]);
                $this->planner->keep(
                    $job,
                    $job->goal ?? throw Refusal::notNow('How to back up is chosen when the device has been read.'),
                );
            },
            new Evidence($choice->fields()),
        );
    }

    /** Six words that nobody has used here. */
    public function offerPassphrase(): string
    {
        return Passphrase::offered(new Randomizer)->reveal();
    }

    /** Whether a passphrase that is given now closes a backup that has still to be written. */
    public function isToCloseWith(BenchJob $job): bool
    {
        return $job->encryption() === Encryption::OpenPgp
            && $job->steps()->where('code', StepCode::BackUp)->where('state', '!=', StepState::Done)->exists();
    }

    /** Takes the passphrase in, and lets the step go on that wants it. */
    public function givePassphrase(BenchJob $job, Passphrase $passphrase, User $by): void
    {
        $this->acts->carryOut(Act::GivePassphrase, $job, $by, function () use ($job, $passphrase): void {
            $this->locker->put($job, $passphrase);
            $wanting = $job
                ->steps()
                ->where('state', StepState::NeedsHand)
                ->get()
                ->filter(static fn (JobStep $s): bool => $s->waitsFor(ProblemCode::PassphraseWanted));
            $wanting->each($this->ledger->goOn(...));
        });
    }

    /** @param  CloudWord|null  $word  null takes it back */
    public function tellOfCloud(BenchJob $job, ?CloudWord $word, User $by): void
    {
        $this->acts->carryOut(Act::TellOfCloud, $job, $by, function () use ($job, $word): void {
            $job->update(['cloud' => $word]);
            if ($job->route === null && $job->goal !== null) {
                $this->planner->keep($job, $job->goal);
            }
        }, new Evidence($word?->fields() ?? []));
    }

    /**
     * Keeps a person's word for what no machine here can read.
     *
     * @param  non-empty-list<CheckCode>  $codes
     */
    public function attest(BenchJob $job, array $codes, User $by): void
    {
        $this->acts->carryOut(
            Act::Attest,
            $job,
            $by,
            function () use ($job, $codes, $by): void {
                $given = $job->attestations ?? Attestations::none();
                foreach ($codes as $code) {
                    Attestation::isPossibleFor($code)
                        || throw Refusal::notNow('This check is read by a machine; nobody\'s word can stand for it.');
                    $given = $given->with($code, new PersonWord($by->name, $this->clock->now()));
                }
                $job->update(['attestations' => $given]);
            },
            new Evidence(['check' => implode(', ', array_column($codes, 'value'))]),
        );
    }

    public function takeBackAttestation(BenchJob $job, CheckCode $code, User $by): void
    {
        $this->acts->carryOut(Act::TakeBackAttestation, $job, $by, static function () use ($job, $code): void {
            $given = $job->attestations ?? Attestations::none();
            $given->has($code) || throw Refusal::notNow('Nobody has given their word for this check.');
            $job->update(['attestations' => $given->without($code)]);
        }, new Evidence(['check' => $code->value]));
    }

    /** Starts a new bag before the line. The earlier one stays on the shelf as what it is. */
    public function backUpAgain(BenchJob $job, User $by): void
    {
        $this->acts->carryOut(Act::BackUpAgain, $job, $by, function () use ($job): void {
            $job->bags()
                ->whereIn('state', [BagState::Complete, BagState::Writing])
                ->update(['state' => BagState::Damaged]);
            $this->ledger->rewind($job, [...Sequence::OF_BACKUP, StepCode::CrossLine, StepCode::ProveSafety]);
        });
    }

    /**
     * The technician's deliberate act. It lets the last proof begin, which reads everything anew; only that opens the
     * way to the install.
     */
    public function crossLine(BenchJob $job, string $typedSerial, User $by): void
    {
        $this->acts->carryOut(Act::CrossLine, $job, $by, function () use ($job, $typedSerial, $by): void {
            EraseLine::names($typedSerial, $job->serial) || throw Refusal::wrongSerial();
            $job->update(['line_crossed_by' => $by->name]);
            $this->ledger->doneByHand($job->step(StepCode::CrossLine));
        });
    }

    /** The owner took the consent back, or did not give it: it is asked for on the device again. */
    public function askToPair(BenchJob $job, User $by): void
    {
        $this->acts->carryOut(Act::AskToPair, $job, $by, function () use ($job): void {
            try {
                $this->link->start($job->serial, Work::Pair);
            } catch (Declined $e) {
                $e->reason === 'busy' || throw $e; // it is being asked already, or works on something else first
            }
            $pair = $job->step(StepCode::Pair);
            if ($pair->state === StepState::Failed) {
                $this->ledger->retry($pair);
            }
        });
    }
}
