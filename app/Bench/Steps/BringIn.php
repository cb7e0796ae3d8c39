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
use JadeStep\Core\Bag\BagContent;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\BagException;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;

/**
 * Brings in what goes over the base: side exports and chosen kinds, items that are put back one by one, and what syncs,
 * which is waited for. What the device holds already is not sent again.
 */
final readonly class BringIn implements Step
{
    /** With these the device says no to the item, and not to the moment. */
    private const REFUSES_THE_ITEM = ['whole-only', 'unsafe-path'];

    private const CHUNK = 262_144;

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
            return Outcome::ownerLockIsOn();
        }
        $has = self::byKey($this->link->listing($context->job->serial, Encryption::OpenPgp));
        $items = array_filter($content->inventory()->items, static fn (Item $i): bool => in_array($i->kind, $keys, true) || in_array($i->key(), $keys, true));
        $byKey = array_column(array_map(static fn (Item $i): array => [$i->key(), $i], $items), 1, 0);
        // an encrypted bag tells only now whether it has what was asked of it
        $lacks = array_values(array_filter($keys, static fn (string $k): bool => str_contains($k, '/') && ! isset($byKey[$k])));
        $lacks === [] ?: $this->imports->settle($context, $lacks, $bagId, 'This bag does not have it. Take it from another.');
        $wanted = array_filter($byKey, static fn (Item $i): bool => self::isWanted($i, $has[$i->key()] ?? null, in_array($i->key(), $keys, true)));
        try {
            $damaged = $this->damaged($context, $content, $wanted);
            $damaged === [] ?: $this->imports->settle($context, $damaged, $bagId, 'It is damaged in this bag. Take it from another.');
            $this->send($context, $bagId, $content, array_diff_key($wanted, array_flip($damaged)));
            $this->imports->settle($context, $keys, $bagId, '');
        } catch (BagException) {
            $this->imports->settle($context, $keys, $bagId, 'This bag cannot be read to its end. Verify it on the Shelf, and take it from another.');
        }

        return null;
    }

    /**
     * Read once before anything is sent, so that nothing damaged goes to the device and nothing is whole in memory.
     *
     * @param  array<string, Item>  $items  by key
     * @return list<string> the keys of those that are not as they were written
     */
    private function damaged(StepContext $context, BagContent $content, array $items): array
    {
        $left = $items;
        $items === [] ?: $content->each(static function (Item $item, callable $read) use ($context, $items, &$left): void {
            if (! isset($items[$item->key()])) {
                return;
            }
            $context->progress('read back');
            $hash = hash_init('sha256');
            while (($piece = $read(self::CHUNK)) !== '') {
                hash_update($hash, $piece);
            }
            if (hash_final($hash) === $item->sha256) {
                unset($left[$item->key()]);
            }
        });

        return array_map(strval(...), array_keys($left));
    }

    /** @param  array<string, Item>  $items  by key */
    private function send(StepContext $context, string $bagId, BagContent $content, array $items): void
    {
        $whole = array_sum(array_map(static fn (Item $i): int => $i->bytes, $items));
        $done = 0;
        $items === [] ?: $content->each(function (Item $item, callable $read) use ($context, $bagId, $items, $whole, &$done): void {
            if (! isset($items[$item->key()])) {
                return;
            }
            $context->progress("bring in {$item->kind}", null, $done, $whole);
            try {
                $this->link->bringIn($context->job->serial, $item, $read);
            } catch (Refused $e) {
                in_array($e->reason, self::REFUSES_THE_ITEM, true) || throw $e;
                $this->imports->settle($context, [$item->key()], $bagId, "The device says: {$e->getMessage()}");
            }
            $done += $item->bytes;
        });
    }

    /** What is asked for by name replaces what is there; of a whole kind, what the device has is not written over by what is older. */
    private static function isWanted(Item $item, ?Item $there, bool $byName): bool
    {
        return $there === null || ($there->sha256 !== $item->sha256 && ($byName || $there->modifiedAt < $item->modifiedAt));
    }

    /** @return array<string, Item> */
    private static function byKey(Inventory $listing): array
    {
        return array_column(array_map(static fn (Item $i): array => [$i->key(), $i], $listing->items), 1, 0);
    }
}
