<?php

declare(strict_types=1);

namespace App\Steps;

use App\Facts\OpenedBags;
use App\Facts\PassphraseLocker;
use App\Facts\SharedFiles;
use App\Journal\Evidence;
use App\Ledger\Progress;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Models\Bag;
use App\Ports\BagStore;
use App\Ports\DeviceLink;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\EncryptedContent;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;
use JadeStep\Core\Bag\KindCounts;
use JadeStep\Core\Bag\Verification;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Job\ProblemCode;
use Psr\Clock\ClockInterface;

/** Reads every byte of the bag back, and holds its counts against the device's listing. */
final readonly class VerifyBackup implements Step
{
    public function __construct(
        private DeviceLink $link,
        private BagStore $bags,
        private OpenedBags $opened,
        private PassphraseLocker $locker,
        private SharedFiles $shared,
        private ClockInterface $clock,
    ) {
    }

    public function run(RunningStep $step): StepEnd
    {
        $bag = $step->job->safetyBag();
        if ($bag === null) {
            return StepEnd::failed(ProblemCode::BackupMissing, 'There is no backup to verify. Back up again.');
        }
        try {
            $report = $this->read($step, $bag);
        } catch (NotABag) {
            $this->shared->foundDamaged($bag, [Fault::of(FaultCode::Missing, $bag->id)]);

            return StepEnd::failed(ProblemCode::BackupMissing, 'The backup is gone from the Shelf. Back up again.');
        }
        if (! $report->isSound()) {
            return $this->damaged($bag, $report->faults);
        }
        $counts = $bag->isEncrypted() ? $bag->counts : $report->counts;
        if (! KindCounts::areEqual(
            $this->link->listing($step->job->serial, $bag->encryption)->counts(),
            $counts ?? [],
        )) {
            return StepEnd::failed(
                ProblemCode::CountsDiffer,
                'The device lists other numbers of items than the backup holds. Back up again.',
            );
        }

        return $bag->isEncrypted() ? $this->opened($step, $bag, $report) : $this->proven($bag, $report);
    }

    /** An encrypted bag is opened whole with its passphrase, which is wiped then. */
    private function opened(RunningStep $step, Bag $bag, Verification $report): StepEnd
    {
        if ($bag->closed_for !== null) {
            return $this->proven($bag, $report); // only who has the secret key opens it
        }
        $content = $this->opened->of($step->job, $bag);
        if (! ($content instanceof EncryptedContent)) {
            return StepEnd::wanted(
                ProblemCode::PassphraseWanted,
                OpenedBags::wanted('with it the backup is opened, to see that it can be'),
            );
        }
        try {
            $faults = $this->open($step, $content, $bag);
        } catch (Unopened $e) {
            return $this->notOpened($step, $e);
        }
        if ($faults !== []) {
            return $this->damaged($bag, $faults);
        }
        $bag->update(['passphrase_proven_at' => $this->clock->now()]);
        $this->locker->wipe($step->job);

        return $this->proven($bag, $report);
    }

    private function proven(Bag $bag, Verification $report): StepEnd
    {
        $bag->update(['state' => BagState::Verified, 'verified_at' => $this->clock->now(), 'faults' => []]);

        return StepEnd::done(new Evidence([
            'bag' => $bag->id,
            'files read back' => $report->files,
            'bytes read back' => $report->bytes,
        ]));
    }

    private function notOpened(RunningStep $step, Unopened $e): StepEnd
    {
        $this->locker->wipe($step->job);

        return $e->passphraseIsWrong
            ? StepEnd::wanted(
                ProblemCode::PassphraseWanted,
                OpenedBags::wanted('the one that was given does not open this backup'),
            )
            : StepEnd::failed(ProblemCode::BackupDamaged, "{$e->getMessage()} Back up again.");
    }

    /** @return list<Fault> */
    private function open(RunningStep $step, EncryptedContent $content, Bag $bag): array
    {
        $done = 0;

        return $content->prove(static function (int $bytes) use ($step, $bag, &$done): void {
            $step->progress(PhaseCode::OpenBag, Progress::ofBytes($done += $bytes, $bag->bytes));
        });
    }

    private function read(RunningStep $step, Bag $bag): Verification
    {
        return BagVerifier::verify($this->bags->folder($bag->id), $step->readingBack($bag->bytes));
    }

    /** @param  list<Fault>  $faults */
    private function damaged(Bag $bag, array $faults): StepEnd
    {
        $this->shared->foundDamaged($bag, $faults);
        $more = count($faults) > 1 ? ', and '.(count($faults) - 1).' more' : '';

        return StepEnd::failed(
            ProblemCode::BackupDamaged,
            "The backup is damaged: {$faults[0]->message()}{$more}. Back up again.",
        );
    }
}
