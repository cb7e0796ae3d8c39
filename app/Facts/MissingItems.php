<?php

declare(strict_types=1);

namespace App\Facts;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\Exception\BagException;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\Record\ItemImport;

/** What the proof found missing, and which bags on the Shelf have it: the same content, whatever its path there. */
final readonly class MissingItems
{
    public function __construct(private BagStore $bags)
    {
    }

    /** @return list<MissingItem> */
    public function of(BenchJob $job): array
    {
        $missing = self::missing($job);
        $places = $missing === [] ? [] : $this->places($job, $missing);

        return array_map(static fn (Item $i): MissingItem => new MissingItem(
            Kind::from($i->kind), $i, $places[self::name($i)] ?? [], self::import($job, $i),
        ), $missing);
    }

    /** How many of them some bag has, so that they can be put back one by one. */
    public function restorable(BenchJob $job): int
    {
        return count(array_filter($this->of($job), static fn (MissingItem $m): bool => $m->isRestorable()));
    }

    private static function import(BenchJob $job, Item $item): ?ItemImport
    {
        foreach ($job->imports as $import) {
            if ($import->kind->value === $item->kind && $import->sha256 === $item->sha256) {
                return $import;
            }
        }

        return null;
    }

    /** @return list<Item> */
    private static function missing(BenchJob $job): array
    {
        $all = [];
        foreach ($job->proof->kinds ?? [] as $kind) {
            array_push($all, ...$kind->missing);
        }

        return $all;
    }

    private static function name(Item $item): string
    {
        return "{$item->kind} {$item->sha256}";
    }

    /**
     * Encrypted bags of other times keep their listing to themselves, so that they may have it or not; the job's own
     * one is known to have it all.
     *
     * @param  list<Item>  $missing
     * @return array<string, list<ItemPlace>> by kind and digest
     */
    private function places(BenchJob $job, array $missing): array
    {
        $own = $job->safetyBag();
        $places = [];
        foreach (Bag::originals()->where('serial', $job->serial)->get()->reverse() as $bag) {
            if (! $bag->state->proven() || ! $this->bags->has($bag->id)) {
                continue;
            }
            $told = ! $bag->isEncrypted() || $bag->id === $own?->id;
            foreach ($bag->isEncrypted() ? self::perhaps($bag, $missing) : $this->in($bag, $missing) as $item) {
                $places[self::name($item)][] = new ItemPlace($bag->id, $item->path, $told);
            }
        }

        return array_map(static function (array $in): array {
            usort($in, static fn (ItemPlace $a, ItemPlace $b): int => $b->told <=> $a->told);

            return $in;
        }, $places);
    }

    /**
     * @param  list<Item>  $missing
     * @return list<Item> what an encrypted bag may have, by its kinds
     */
    private static function perhaps(Bag $bag, array $missing): array
    {
        $kinds = array_column($bag->kinds, 'value');

        return $bag->passphrase_proven_at === null
            ? []
            : array_values(array_filter($missing, static fn (Item $i): bool => in_array($i->kind, $kinds, true)));
    }

    /**
     * @param  list<Item>  $missing
     * @return list<Item> what a bag has of their content, wherever it has it
     */
    private function in(Bag $bag, array $missing): array
    {
        try {
            $items = BagReader::open($this->bags->folder($bag->id))->inventory()->items;
        } catch (BagException) {
            return []; // what cannot be read has nothing to give
        }
        $contents = array_combine(array_map(self::name(...), $missing), $missing);

        return array_merge(...array_map($items->alike(...), array_values($contents)));
    }
}
