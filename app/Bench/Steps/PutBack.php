<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\CloudReturn;
use App\Bench\Measured;
use App\Bench\OpenedBags;
use App\Bench\Outcome;
use App\Bench\Rates;
use App\Bench\ReturnRecords;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Bench\TheReturn;
use App\Models\Bag;
use App\Ports\DeviceLink;
use App\Ports\Exception\Refused;
use App\Ports\Operation;
use JadeStep\Core\Bag\BagContent;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use Psr\Clock\ClockInterface;

/**
 * Reads the owner lock again, offers the lowered copy (or the backup as it is) to the device, sends what it does not hold
 * yet, and commits. The device has the last word.
 */
final readonly class PutBack implements Step
{
    /** With these the device says no to the backup, and not to the moment. */
    private const REFUSES_THE_BACKUP = ['backup-too-new', 'backup-not-taken'];

    /** It restarts, or ends other work. */
    private const NOT_AT_THIS_MOMENT = ['busy', 'not-in-normal-mode'];

    public function __construct(private DeviceLink $link, private OpenedBags $opened, private Rates $rates, private ReturnRecords $records, private CloudReturn $cloud, private ClockInterface $clock)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $return = TheReturn::of($context->job);
        if ($return->isCloud()) {
            return $this->cloud->run($context);
        }
        $bag = $return->base();
        if ($bag === null) {
            return Outcome::done(['backup' => null]);
        }
        $operation = $this->committed($context) ?? $this->offer($context, $bag);
        if ($operation instanceof Outcome) {
            return $operation;
        }
        $end = $context->watch($this->link, $operation);
        if ($end instanceof Outcome) {
            return $end;
        }
        if (! $end->succeeded()) {
            $context->remember(['operation' => null]); // a new try commits anew
        }

        return $end->succeeded()
            ? Outcome::done(['backup' => $bag->id, 'declared' => $context->recall('declared'), 'owner lock' => 'off, read '.$context->recall('lockReadAt')])
            : Outcome::failed('return-failed', 'The device broke the return off. The bag is untouched: try again.');
    }

    /** The return that an earlier run has committed; the device may have forgotten it, but not what it holds already. */
    private function committed(StepContext $context): ?Operation
    {
        $id = $context->recall('operation');
        try {
            return $id === null ? null : $this->link->operation($context->job->serial, $id);
        } catch (Refused $e) {
            $e->reason === 'no-such-operation' ? $context->remember(['operation' => null]) : throw $e;

            return null;
        }
    }

    private function offer(StepContext $context, Bag $base): Operation|Outcome
    {
        $bag = $context->job->loweredCopy($base->id) ?? $base;
        $content = $this->opened->tried($context->job, $bag);
        if ($content === null) {
            return OpenedBags::wanted('with it the backup is opened, to put its data back', $bag);
        }
        $reading = $this->link->read($context->job->serial);
        if (($reading->facts['ownerLock'] ?? null) === 'on') {
            return Outcome::ownerLockIsOn();
        }
        $context->remember(['lockReadAt' => Rfc3339::format($this->clock->now()), 'declared' => $bag->declared_version]);
        try {
            $operation = $this->link->commitReturn($context->job->serial, $this->send($context, $bag, $content));
        } catch (Refused $e) {
            return $this->refused($context, $base, Version::parse($reading->version), $e);
        }
        $context->remember(['operation' => $operation->id]);

        return $operation;
    }

    private function refused(StepContext $context, Bag $base, Version $installed, Refused $e): Outcome
    {
        if ($e->reason === 'owner-lock-on') {
            return Outcome::ownerLockIsOn();
        }
        if (in_array($e->reason, self::NOT_AT_THIS_MOMENT, true)) {
            return Outcome::again(1);
        }
        if (! in_array($e->reason, self::REFUSES_THE_BACKUP, true)) {
            throw $e;
        }
        $this->records->wasRefused($context->job, $base, $installed);
        $said = ['backup' => $base->id, 'words' => $e->getMessage(), 'at' => Rfc3339::format($this->clock->now())];
        $context->mark(['refused_bases' => [...($context->job->refused_bases ?? []), $said]], []);

        return Outcome::failed($e->reason, "The device says: {$e->getMessage()} Nothing was changed on it. Choose what is put back instead.");
    }

    private function send(StepContext $context, Bag $bag, BagContent $content): string
    {
        $inventory = $content->inventory();
        $serial = $context->job->serial;
        $return = $this->link->offerReturn($serial, $bag->declared_version, $inventory);
        $there = array_flip($this->link->returned($serial, $return));
        $whole = $inventory->bytes();
        [$done, $sent, $started] = [0, 0, microtime(true)];
        $tally = array_map(static fn (int $of): array => [0, $of], array_filter($inventory->counts()));
        $content->each(function (Item $item, callable $read) use ($context, $serial, $return, $there, $whole, &$done, &$sent, &$tally): void {
            $context->tally($tally);
            $context->progress("send {$item->kind}", null, $done, $whole);
            if (! isset($there[$item->key()])) {
                $this->link->sendItem($serial, $return, $item, $read);
                $sent += $item->bytes;
            }
            $done += $item->bytes;
            $tally[$item->kind][0]++;
        });
        $context->tally($tally);
        $context->remember(['tally' => $tally]);
        $this->rates->moved(Measured::Return, $sent, microtime(true) - $started, $context->job->bench_id, $context->job->id);

        return $return;
    }
}
