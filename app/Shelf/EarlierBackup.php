<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Models\Bag;
use App\Ports\BagStore;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\EarlierBag;
use JadeStep\Core\Bag\OpenPgp;
use Psr\Clock\ClockInterface;

/** What a new bag of a device may have from an earlier one, so that it costs what has changed since then. */
final readonly class EarlierBackup
{
    public function __construct(private BagStore $bags, private ClockInterface $clock)
    {
    }

    /**
     * The device's latest bag that is proven and there, plain or encrypted as the new one is. Both are read again
     * before they are trusted, since whoever changes the one changes the other. What is closed for a key tells nobody
     * here what it holds, and is not shared.
     *
     * @param  OpenPgp|null  $by  what the new one is encrypted with: an earlier one is shared where it opens it
     */
    public function of(Bag $bag, ?OpenPgp $by): ?EarlierBag
    {
        $atMost = Keeping::read()->shareAtMost;
        if ($atMost < 2 || $bag->isEncrypted() && ($by === null || $by->closedFor() !== null)) {
            return null;
        }
        $latest = Bag::wholes()
            ->where('serial', $bag->serial)
            ->where('encryption', $bag->encryption)
            ->where('closed_for', null)
            ->whereIn('state', [BagState::Verified, BagState::Sealed])
            ->reorder()
            ->latest('taken_at')
            ->get()
            ->first(fn (Bag $b): bool => $this->bags->has($b->id));
        $folder = $latest === null ? '' : $this->bags->folder($latest->id);
        $earlier = match (true) {
            $latest === null => null,
            $bag->isEncrypted() && $by !== null => EarlierBag::opened($folder, $by, $atMost),
            default => EarlierBag::open($folder, $atMost),
        };
        if ($latest !== null && $earlier !== null) {
            $now = $this->clock->now();
            $latest->shared_at ?? $latest->update(['shared_at' => $now]);
            $bag->shared_at ?? $bag->update(['shared_at' => $now]);
        }

        return $earlier;
    }
}
