<?php

declare(strict_types=1);

namespace App\Steps;

use App\Facts\OpenedBags;
use App\Journal\Evidence;
use App\Ledger\Progress;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Models\Bag;
use App\Ports\DeviceLink;
use App\Ports\Exception\Declined;
use JadeStep\Core\Bag\BagContent;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\BagException;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Items;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;

/**
 * Brings in what goes over the base: side exports and chosen kinds, items that are put back one by one, and what syncs,
 * which is waited for. What the device holds already is not sent again.
 */
final readonly class BringIn implements Step
{
    /** With these the device says no to the item, and not to the moment. */
    private const REFUSES_THE_ITEM = ['whole-only', 'unsafe-path'];

    private const CHUNK = 262_144;

    public function __construct(
        private DeviceLink $link,
        private OpenedBags $opened,
        private ItemsToBringIn $items,
        private Overlays $overlays,
    ) {
    }

    public function run(RunningStep $step): StepEnd
    {
        // what syncs comes first, so that nothing newer is written over by it
        $waits = $this->overlays->look($step);
        if ($waits !== null) {
            return $waits;
        }
        $wanted = $this->items->of($step->job);
        foreach ($wanted as $bagId => $keys) {
            $outcome = $this->fromBag($step, $bagId, $keys);
            if ($outcome !== null) {
                return $outcome;
            }
        }

        return StepEnd::done(new Evidence([
            'brought in' => array_map(count(...), $wanted),
            'overlays' => array_keys($step->memory()->array('overlays')),
        ]));
    }

    /** @param  list<string>  $keys  a kind, or kind/path */
    private function fromBag(RunningStep $step, string $bagId, array $keys): ?StepEnd
    {
        $bag = Bag::query()->find($bagId);
        if ($bag === null) {
            return StepEnd::failed(
                ProblemCode::BaseMissing,
                'A backup that kinds or items are brought in from is not on the Shelf any more. Nothing of it '
                    .'is taken for brought in: choose again.',
            );
        }
        $content = $this->opened->tried(
            $step->job,
            $bag,
            'with it the backup is opened, to bring its items in',
        );
        if ($content instanceof Problem) {
            return StepEnd::wantedBecause($content);
        }
        $reading = $this->link->read($step->job->serial);
        if ($reading->isLocked()) {
            return PutBack::ownerLockIsOn();
        }
        $has = $this->link->listing($step->job->serial, Encryption::OpenPgp)->items;
        $inventory = $content->inventory()->items;
        // an encrypted bag tells only now whether it has what was asked of it
        $lacks = array_values(array_filter(
            $keys,
            static fn (string $k): bool => str_contains($k, '/') && $inventory->find($k) === null,
        ));
        if ($lacks !== []) {
            $this->items->settle($step, $lacks, $bagId, 'This bag does not have it. Take it from another.');
        }
        $wanted = self::wanted($inventory, $has, $keys);
        try {
            $sound = $this->sound($step, $content, $wanted);
            $damaged = array_map(
                static fn (Item $i): string => $i->key(),
                iterator_to_array($wanted->notHeldBy($sound), false),
            );
            if ($damaged !== []) {
                $this->items->settle($step, $damaged, $bagId, 'It is damaged in this bag. Take it from another.');
            }
            $this->send($step, $bagId, $content, $sound);
            $this->items->settle($step, $keys, $bagId, '');
        } catch (BagException) {
            $this->items->settle(
                $step,
                $keys,
                $bagId,
                'This bag cannot be read to its end. Verify it on the Shelf, and take it from another.',
            );
        }

        return null;
    }

    /**
     * Read once before anything is sent, so that nothing damaged goes to the device and nothing is whole in memory.
     *
     * @return Items those that are as they were written
     */
    private function sound(RunningStep $step, BagContent $content, Items $wanted): Items
    {
        $sound = new Items;
        if (! $wanted->isEmpty()) {
            $content->each(static function (Item $item, callable $read) use ($step, $wanted, $sound): void {
                if (! $wanted->hold($item)) {
                    return;
                }
                $step->progress(PhaseCode::ReadBack);
                $hash = hash_init('sha256');
                while (($piece = $read(self::CHUNK)) !== '') {
                    hash_update($hash, $piece);
                }
                if (hash_final($hash) === $item->sha256) {
                    $sound->add($item);
                }
            });
        }

        return $sound;
    }

    private function send(RunningStep $step, string $bagId, BagContent $content, Items $sound): void
    {
        $whole = $sound->bytes();
        $done = 0;
        if (! $sound->isEmpty()) {
            $content->each(function (Item $item, callable $read) use ($step, $bagId, $sound, $whole, &$done): void {
                if (! $sound->hold($item)) {
                    return;
                }
                $step->progress(PhaseCode::BringIn, Progress::ofBytes($done, $whole), Kind::tryFrom($item->kind));
                try {
                    $this->link->bringIn($step->job->serial, $item, PutBack::beating($step, $read));
                } catch (Declined $e) {
                    in_array($e->reason, self::REFUSES_THE_ITEM, true) || throw $e;
                    $this->items->settle($step, [$item->key()], $bagId, "The device says: {$e->getMessage()}");
                }
                $done += $item->bytes;
            });
        }
    }

    /** @param  list<string>  $keys  a kind, or kind/path */
    private static function wanted(Items $inventory, Items $has, array $keys): Items
    {
        $wanted = new Items;
        foreach ($keys as $key) {
            $byName = str_contains($key, '/');
            foreach ($byName ? array_filter([$inventory->find($key)]) : $inventory->ofKind($key) as $item) {
                self::isWanted($item, $has->find($item->key()), $byName) && $wanted->add($item);
            }
        }

        return $wanted;
    }

    /**
     * What is asked for by name replaces what is there; of a whole kind, what the device has is not written over by
     * what is older.
     */
    private static function isWanted(Item $item, ?Item $there, bool $byName): bool
    {
        return $there === null
            || ($there->sha256 !== $item->sha256 && ($byName || $there->modifiedAt < $item->modifiedAt));
    }
}
