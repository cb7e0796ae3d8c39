<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\Measured;
use App\Bench\OpenedBags;
use App\Bench\Outcome;
use App\Bench\PassphraseLocker;
use App\Bench\Rates;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Models\Bag;
use App\Ports\DeviceLink;
use App\Ports\Exception\Refused;
use JadeStep\Core\Bag\BagContent;
use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Item;

/** Offers the lowered copy (or the backup as it is) to the device, sends what it does not hold yet, and commits. */
final readonly class PutBack implements Step
{
    public function __construct(private DeviceLink $link, private OpenedBags $opened, private PassphraseLocker $locker, private Rates $rates)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $serial = $context->job->serial;
        $committed = $context->recall('operation');
        if ($committed === null) {
            $content = $this->content($context);
            if ($content === null) {
                return OpenedBags::wanted('with it the backup is opened, to put its data back');
            }
            try {
                $operation = $this->link->commitReturn($serial, $this->send($context, $content));
            } catch (Refused $e) {
                return $e->reason === 'owner-lock-on' ? Outcome::again(2, $e->reason, 'The owner lock is on again, and the device takes no data while it is. Have the owner switch it off on the device; it then goes on by itself.') : throw $e;
            }
            $context->remember(['operation' => $operation->id]);
        } else {
            try {
                $operation = $this->link->operation($serial, $committed);
            } catch (Refused $e) {
                $e->reason === 'no-such-operation' ? $context->remember(['operation' => null]) : throw $e;

                return Outcome::again(0); // the device has forgotten it; what it holds already is not sent again
            }
        }
        $end = $context->watch($this->link, $operation);
        if ($end instanceof Outcome) {
            return $end;
        }
        if (! $end->succeeded()) {
            $context->remember(['operation' => null]); // a new try commits anew
        }

        return $end->succeeded() ? Outcome::done() : Outcome::failed('return-failed', 'The device broke the return off. The bag is untouched: try again.');
    }

    /** @return BagContent|null null where the passphrase is wanted */
    private function content(StepContext $context): ?BagContent
    {
        $content = $this->opened->of($context->job, $this->bag($context));
        try {
            $content?->inventory();
        } catch (Unopened $e) {
            $e->passphraseIsWrong || throw $e;
            $this->locker->wipe($context->job);

            return null;
        }

        return $content;
    }

    private function bag(StepContext $context): Bag
    {
        return $context->job->loweredCopy() ?? $context->job->safetyBag() ?? throw new \LogicException('A job past the line has a bag.');
    }

    private function send(StepContext $context, BagContent $content): string
    {
        $inventory = $content->inventory();
        $serial = $context->job->serial;
        $return = $this->link->offerReturn($serial, $this->bag($context)->declared_version, $inventory);
        $there = array_flip($this->link->returned($serial, $return));
        $whole = $inventory->bytes();
        $done = 0;
        $sent = 0;
        $started = microtime(true);
        $content->each(function (Item $item, callable $read) use ($context, $serial, $return, $there, $whole, &$done, &$sent): void {
            $context->progress("send {$item->kind}", null, $done, $whole);
            if (! isset($there[$item->key()])) {
                $this->link->sendItem($serial, $return, $item, $read);
                $sent += $item->bytes;
            }
            $done += $item->bytes;
        });
        $this->rates->moved(Measured::Return, $sent, microtime(true) - $started, $context->job->bench_id, $context->job->id);

        return $return;
    }
}
