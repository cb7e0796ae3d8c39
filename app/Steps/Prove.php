<?php

declare(strict_types=1);

namespace App\Steps;

use App\Facts\BaseOfJob;
use App\Facts\JobFacts;
use App\Facts\MissingItems;
use App\Facts\OpenedBags;
use App\Facts\PassphraseLocker;
use App\Facts\ReturnEvidence;
use App\Journal\Evidence;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use JadeStep\Core\Bag\Comparison;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Reconciliation;
use JadeStep\Core\Bag\RewriteRule;
use JadeStep\Core\Device\KindStock;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\WayBack\Promise;
use JadeStep\Core\Proof\Account;
use JadeStep\Core\Proof\JobProof;
use Psr\Clock\ClockInterface;

/**
 * Holds the inventory of the backup against what the device lists now, item by item, and the promise against what
 * happened.
 */
final readonly class Prove implements Step
{
    public function __construct(
        private DeviceLink $link,
        private OpenedBags $opened,
        private PassphraseLocker $locker,
        private MissingItems $missing,
        private ReturnEvidence $evidence,
        private ClockInterface $clock,
    ) {
    }

    public function run(RunningStep $step): StepEnd
    {
        $job = $step->job;
        $bag = BaseOfJob::comparedWith($job);
        if ($bag === null && BaseOfJob::hasBag($job)) {
            return StepEnd::failed(
                ProblemCode::BackupMissing,
                'The backup that the device is compared with is not on the Shelf any more.',
            );
        }
        $step->progress(PhaseCode::ListContent);
        $content = $bag === null ? null : $this->opened->tried(
            $job,
            $bag,
            'with it the inventory of the backup is opened, to compare',
        );
        if ($content instanceof Problem) {
            return StepEnd::wantedBecause($content);
        }
        $reading = $this->link->read($job->serial);
        $after = $this->link->listing($job->serial, $bag->encryption ?? Encryption::OpenPgp);
        $step->progress(PhaseCode::Compare);
        $return = $job->return() ?? throw new \LogicException('A job that compares has a return.');
        $rules = RewriteRule::usual($return->promise->losses->appsUnavailable !== []);
        // where a device was erased elsewhere and nothing here lists what it held, there are counts at most
        $comparison = $content === null
            ? Reconciliation::compare(Inventory::of([], []), Inventory::of([], []), $rules)
            : Reconciliation::compare($content->inventory(), $after, $rules);
        $standing = self::account($job, $return->standing, $comparison, $reading);
        $later =
            $return->promise === $return->standing
                ? $standing
                : self::account($job, $return->promise, $comparison, $reading);
        $this->keep(
            $job,
            new JobProof(
                $this->clock->now(),
                $job->readDevice()->version,
                $job->readDevice()->build,
                $reading->device->version,
                $reading->device->build,
                JobProof::kinds($standing, $later),
            ),
        );
        $this->locker->wipe($job);
        $base = BaseOfJob::find($job);
        if ($base !== null) {
            $this->evidence->came($job, $base, $reading->device->version, $later);
        }
        $verdict = JobFacts::verdict($job);

        return StepEnd::done(new Evidence([
            'verdict' => $verdict->code->value,
            'missing' => $job->proof?->missing(),
            'not named' => array_column($verdict->unnamedKinds, 'value'),
        ]));
    }

    private function keep(BenchJob $job, JobProof $proof): void
    {
        $job->proof = $proof;
        $job->restorable = $this->missing->restorable($job);
        $job->save();
    }

    private static function account(
        BenchJob $job,
        Promise $promise,
        Comparison $comparison,
        DeviceReading $now,
    ): Account {
        $kinds = $job->readDevice()->kinds;
        $before = array_combine(
            array_map(static fn (KindStock $s): string => $s->kind->value, $kinds),
            array_map(static fn (KindStock $s): int => $s->items, $kinds),
        );

        return Account::of($promise->fates, $comparison, $before, $now->counts());
    }
}
