<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\OpenedBags;
use App\Bench\Outcome;
use App\Bench\PassphraseLocker;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Models\Bag;
use App\Ports\DeviceLink;
use JadeStep\Core\Bag\BagContent;
use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Item;

/** Offers the lowered copy (or the backup as it is) to the device, sends what it does not hold yet, and commits. */
final readonly class PutBack implements Step
{
    public function __construct(private DeviceLink $link, private OpenedBags $opened, private PassphraseLocker $locker)
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
            $operation = $this->link->commitReturn($serial, $this->send($context, $content));
            $context->remember(['operation' => $operation->id]);
        } else {
            $operation = $this->link->operation($serial, $committed);
        }
        $end = $context->watch($this->link, $operation);
        if ($end?->succeeded() === false) {
            $context->remember(['operation' => null]); // a new try commits anew
        }

        return match ($end?->succeeded()) {
            null => Outcome::again(0),
            true => Outcome::done(),
            false => Outcome::failed('return-failed', 'The device broke the return off. The bag is untouched: try again.'),
        };
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
        $content->each(function (Item $item, callable $read) use ($context, $serial, $return, $there, $whole, &$done): void {
            $context->progress("send {$item->kind}", null, $done, $whole);
            isset($there[$item->key()]) || $this->link->sendItem($serial, $return, $item, $read);
            $done += $item->bytes;
        });

        return $return;
    }
}
