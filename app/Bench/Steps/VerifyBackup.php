<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\BagState;
use App\Bench\OpenedBags;
use App\Bench\Outcome;
use App\Bench\PassphraseLocker;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Models\Bag;
use App\Ports\BagStore;
use App\Ports\DeviceLink;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\EncryptedContent;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\Verification;
use Psr\Clock\ClockInterface;

/** Reads every byte of the bag back, and holds its counts against the device's listing. */
final readonly class VerifyBackup implements Step
{
    public function __construct(private DeviceLink $link, private BagStore $bags, private OpenedBags $opened, private PassphraseLocker $locker, private ClockInterface $clock)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $bag = $context->job->safetyBag();
        if ($bag === null) {
            return Outcome::failed('backup-missing', 'There is no backup to verify. Back up again.');
        }
        try {
            $report = $this->read($context, $bag);
        } catch (NotABag) {
            $bag->update(['state' => BagState::Damaged, 'faults' => [['code' => 'missing', 'path' => $bag->id, 'detail' => '']]]);

            return Outcome::failed('backup-missing', 'The bag is gone from the shelf. Back up again.');
        }
        if (! $report->isSound()) {
            return $this->damaged($bag, $report);
        }
        if ($this->link->listing($context->job->serial, $bag->encryption)->counts() != ($bag->encryption === Encryption::None ? $report->counts : $bag->counts)) {
            return Outcome::failed('counts-differ', 'The device lists other numbers of items than the bag holds. Back up again.');
        }

        return $this->proven($context, $bag, $report);
    }

    /** An encrypted bag is opened whole with its passphrase, which is wiped then. */
    private function proven(StepContext $context, Bag $bag, Verification $report): Outcome
    {
        if ($bag->encryption === Encryption::OpenPgp) {
            $content = $this->opened->of($context->job, $bag);
            if (! $content instanceof EncryptedContent) {
                return OpenedBags::wanted('with it the backup is opened, to see that it can be');
            }
            try {
                $faults = $this->open($context, $content, $bag);
            } catch (Unopened $e) {
                return $this->notOpened($context, $e);
            }
            if ($faults !== []) {
                return $this->damaged($bag, new Verification($faults, $report->description, $report->files, $report->bytes, []));
            }
            $bag->update(['passphrase_proven_at' => $this->clock->now()]);
            $this->locker->wipe($context->job);
        }
        $bag->update(['state' => BagState::Verified, 'verified_at' => $this->clock->now(), 'faults' => []]);

        return Outcome::done(['bag' => $bag->id, 'files read back' => $report->files, 'bytes read back' => $report->bytes]);
    }

    private function notOpened(StepContext $context, Unopened $e): Outcome
    {
        $this->locker->wipe($context->job);

        return $e->passphraseIsWrong ? OpenedBags::wanted('the one that was given does not open this bag') : Outcome::failed('backup-damaged', $e->getMessage().' Back up again.');
    }

    /** @return list<Fault> */
    private function open(StepContext $context, EncryptedContent $content, Bag $bag): array
    {
        $done = 0;

        return $content->prove(static function (int $bytes) use ($context, $bag, &$done): void {
            $context->progress('open with the passphrase', null, $done += $bytes, $bag->bytes);
        });
    }

    private function read(StepContext $context, Bag $bag): Verification
    {
        $done = 0;

        return BagVerifier::verify($this->bags->folder($bag->id), static function (int $bytes) use ($context, $bag, &$done): void {
            $context->progress('read back', null, $done += $bytes, $bag->bytes);
        });
    }

    private function damaged(Bag $bag, Verification $report): Outcome
    {
        $faults = array_map(static fn (Fault $f): array => ['code' => $f->code->value, 'path' => $f->path, 'detail' => $f->detail], $report->faults);
        $bag->update(['state' => BagState::Damaged, 'faults' => $faults]);

        return Outcome::failed('backup-damaged', 'The bag is damaged: '.$report->faults[0]->message().(count($faults) > 1 ? ', and '.(count($faults) - 1).' more' : '').'. Back up again.');
    }
}
