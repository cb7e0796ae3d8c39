<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\Imports;
use App\Bench\OpenedBags;
use App\Bench\Outcome;
use App\Bench\Overlays;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Models\Bag;
use App\Ports\DeviceLink;
use App\Ports\Exception\Refused;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;

/**
 * Brings in what goes over the base: side exports and chosen kinds, items that are put back one by one, and what syncs,
 * which is waited for. What the device holds already is not sent again.
 */
final readonly class BringIn implements Step
{
    public function __construct(private DeviceLink $link, private OpenedBags $opened, private Imports $imports, private Overlays $overlays)
    {
    }

    public function run(StepContext $context): Outcome
    {
        // what syncs comes first, so that nothing newer is written over by it
        $waits = $this->overlays->look($context);
        if ($waits !== null) {
            return $waits;
        }
        $wanted = $this->imports->wanted($context->job);
        foreach ($wanted as $bagId => $keys) {
            $outcome = $this->fromBag($context, $bagId, $keys);
            if ($outcome !== null) {
                return $outcome;
            }
        }

        return Outcome::done(['brought in' => array_map(count(...), $wanted), 'overlays' => array_column(array_map(static fn (string $k, array $o): array => [$k, $o['state']], array_keys($context->recall('overlays') ?? []), $context->recall('overlays') ?? []), 1, 0)]);
    }

    /** @param  list<string>  $keys  a kind, or kind/path */
    private function fromBag(StepContext $context, string $bagId, array $keys): ?Outcome
    {
        $bag = Bag::query()->find($bagId);
        if ($bag === null) {
            $this->imports->settle($context, $keys, $bagId, 'The bag is not on the Shelf any more.');

            return null;
        }
        $content = $this->opened->tried($context->job, $bag);
        if ($content === null) {
            return OpenedBags::wanted('with it the bag is opened, to bring its items in', $bag);
        }
        $reading = $this->link->read($context->job->serial);
        if (($reading->facts['ownerLock'] ?? null) === 'on') {
            return Outcome::again(2, 'owner-lock-on', 'The owner lock is on again, and the device takes no data while it is. Have the owner switch it off on the device; it then goes on by itself.');
        }
        $has = self::byKey($this->link->listing($context->job->serial, Encryption::OpenPgp));
        $items = array_filter($content->inventory()->items, static fn (Item $i): bool => in_array($i->kind, $keys, true) || in_array($i->key(), $keys, true));
        $byKey = array_column(array_map(static fn (Item $i): array => [$i->key(), $i], $items), 1, 0);
        // an encrypted bag tells only now whether it has what was asked of it
        $lacks = array_values(array_filter($keys, static fn (string $k): bool => str_contains($k, '/') && ! isset($byKey[$k])));
        $lacks === [] ?: $this->imports->settle($context, $lacks, $bagId, 'This bag does not have it. Take it from another.');
        $this->send($context, $bagId, $content, $byKey, $has);
        $this->imports->settle($context, $keys, $bagId, '');

        return null;
    }

    /**
     * @param  array<string, Item>  $items  by key
     * @param  array<string, Item>  $has  what is on the device, by key
     */
    private function send(StepContext $context, string $bagId, \JadeStep\Core\Bag\BagContent $content, array $items, array $has): void
    {
        $whole = array_sum(array_map(static fn (Item $i): int => $i->bytes, $items));
        $done = 0;
        $content->each(function (Item $item, callable $read) use ($context, $bagId, $items, $has, $whole, &$done): void {
            if (! isset($items[$item->key()])) {
                return;
            }
            $context->progress("bring in {$item->kind}", null, $done, $whole);
            if (self::isNewer($item, $has[$item->key()] ?? null)) {
                $this->one($context, $bagId, $item, $read);
            }
            $done += $item->bytes;
        });
    }

    /** @param  callable(int): string  $read */
    private function one(StepContext $context, string $bagId, Item $item, callable $read): void
    {
        $text = '';
        while (($piece = $read(1_048_576)) !== '') {
            $text .= $piece;
        }
        if (hash('sha256', $text) !== $item->sha256) {
            $this->imports->settle($context, [$item->key()], $bagId, 'It is damaged in this bag. Take it from another.');

            return;
        }
        try {
            $at = 0;
            $this->link->bringIn($context->job->serial, $item, static function (int $most) use ($text, &$at): string {
                $piece = substr($text, $at, $most);
                $at += strlen($piece);

                return $piece;
            });
        } catch (Refused $e) {
            $e->reason === 'no-such-device' ? throw $e : $this->imports->settle($context, [$item->key()], $bagId, "The device says: {$e->getMessage()}");
        }
    }

    /** What the device has is not written over by what is older. */
    private static function isNewer(Item $item, ?Item $there): bool
    {
        return $there === null || ($there->sha256 !== $item->sha256 && $there->modifiedAt < $item->modifiedAt);
    }

    /** @return array<string, Item> */
    private static function byKey(Inventory $listing): array
    {
        return array_column(array_map(static fn (Item $i): array => [$i->key(), $i], $listing->items), 1, 0);
    }
}
