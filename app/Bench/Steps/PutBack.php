<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Ports\BagStore;
use App\Ports\DeviceLink;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\Item;

/** Offers the lowered copy (or the backup as it is) to the device, sends what it does not hold yet, and commits. */
final readonly class PutBack implements Step
{
    public function __construct(private DeviceLink $link, private BagStore $bags)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $serial = $context->job->serial;
        $committed = $context->recall('operation');
        if ($committed === null) {
            $return = $this->send($context);
            $operation = $this->link->commitReturn($serial, $return);
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

    private function send(StepContext $context): string
    {
        $bag = $context->job->loweredCopy() ?? $context->job->safetyBag() ?? throw new \LogicException('A job past the line has a bag.');
        $reader = BagReader::open($this->bags->folder($bag->id));
        $inventory = $reader->inventory();
        $serial = $context->job->serial;
        $return = $this->link->offerReturn($serial, (string) $reader->description()->declaredVersion, $inventory);
        $there = array_flip($this->link->returned($serial, $return));
        $done = 0;
        foreach ($inventory->items as $item) {
            $context->progress("send {$item->kind}", null, $done, $inventory->bytes());
            isset($there[$item->key()]) || $this->sendItem($serial, $return, $reader, $item);
            $done += $item->bytes;
        }

        return $return;
    }

    private function sendItem(string $serial, string $return, BagReader $reader, Item $item): void
    {
        $content = $reader->content($item);
        $this->link->sendItem($serial, $return, $item, $content);
        fclose($content);
    }
}
