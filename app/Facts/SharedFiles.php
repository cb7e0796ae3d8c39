<?php

declare(strict_types=1);

namespace App\Facts;

use App\Models\Bag;
use App\Ports\BagStore;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\Space;

/**
 * Bags of a device that share files: what is found altered in one is altered in the others too, and what one leaves
 * behind on the disk is another's from then on.
 */
final readonly class SharedFiles
{
    public function __construct(private BagStore $bags)
    {
    }

    /** @param  list<Fault>  $faults  that a reading of every byte has found */
    public function foundDamaged(Bag $bag, array $faults): void
    {
        $bag->foundDamaged($faults);
        foreach (Bag::query()->where('serial', $bag->serial)->whereKeyNot($bag->id)->get() as $other) {
            $same = array_filter($faults, fn (Fault $f): bool => $this->isOneFile($bag, $other, $f->path));
            if ($same !== [] && $other->state !== BagState::Writing) {
                $other->foundDamaged(array_values($same));
            }
        }
    }

    /** Takes the folder of a bag away whose row says already that it is deleted. */
    public function remove(Bag $bag): void
    {
        $left = ($bag->own_bytes ?? $bag->bytes ?? 0) - Space::onlyIn($this->bags->folder($bag->id));
        if ($left > 0) {
            $heir = Bag::originals()->where('serial', $bag->serial)->where('shared_at', '!=', null)->get()
                ->sortBy(static fn (Bag $b): array => [$b->taken_at < $bag->taken_at, $b->taken_at])
                ->first();
            $heir?->update(['own_bytes' => min($heir->bytes ?? 0, ($heir->own_bytes ?? 0) + $left)]);
        }
        $this->bags->remove($bag->id);
    }

    private function isOneFile(Bag $one, Bag $other, string $path): bool
    {
        $first = @lstat($this->bags->folder($one->id)."/{$path}");
        $second = @lstat($this->bags->folder($other->id)."/{$path}");

        return $first !== false && $second !== false && $first['nlink'] > 1
            && [$first['dev'], $first['ino']] === [$second['dev'], $second['ino']];
    }
}
