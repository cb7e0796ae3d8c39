<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\OpenedBags;
use App\Bench\Outcome;
use App\Bench\PassphraseLocker;
use App\Bench\ProofOfJob;
use App\Bench\ReturnRecords;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Bench\TheReturn;
use App\Ports\DeviceLink;
use JadeStep\Core\Bag\Reconciliation;
use JadeStep\Core\Bag\RewriteRule;
use JadeStep\Core\Exchange\PlanFates;
use JadeStep\Core\Proof\Account;
use JadeStep\Core\Version\Version;

/** Holds the inventory of the backup against what the device lists now, item by item, and the promise against what happened. */
final readonly class Prove implements Step
{
    public function __construct(private DeviceLink $link, private OpenedBags $opened, private PassphraseLocker $locker, private ProofOfJob $proofs, private ReturnRecords $records)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $job = $context->job;
        $bag = $job->safetyBag() ?? throw new \LogicException('A job past the line has a bag.');
        $context->progress('list');
        $content = $this->opened->tried($job, $bag);
        if ($content === null) {
            return OpenedBags::wanted('with it the inventory of the backup is opened, to compare', $bag);
        }
        $reading = $this->link->read($job->serial);
        $after = $this->link->listing($job->serial, $bag->encryption);
        $context->progress('compare');
        $return = TheReturn::of($job);
        $rules = RewriteRule::usual(($return->losses['appsUnavailable'] ?? []) !== []);
        $account = Account::of(PlanFates::read($return->promise), Reconciliation::compare($content->inventory(), $after, $rules), array_column($job->device['kinds'] ?? [], 'items', 'kind'), $reading->counts());
        $document = $this->proofs->document($job, $account, $return, $reading);
        $this->locker->wipe($job);
        $job->update(['proof' => $document]);
        $base = $return->base();
        $base === null ?: $this->records->came($job, $base, Version::parse($reading->version), $account);

        return Outcome::done(['missing' => $document['missing'], 'nothing lost' => $document['nothingLost'], 'otherwise than promised' => $document['unexpected']]);
    }
}
