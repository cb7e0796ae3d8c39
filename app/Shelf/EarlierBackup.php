<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Models\Bag;
use App\Ports\BagStore;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\EarlierBag;
use JadeStep\Core\Bag\Encryption;
use Psr\Clock\ClockInterface;

/** What a new plain bag of a device may have from an earlier one, so that it costs what has changed since then. */
final readonly class EarlierBackup
{
    public function __construct(private BagStore $bags, private ClockInterface $clock)
    {
    }

    /**
     * The device's latest plain bag that is proven and there. Both are read again before they are trusted, since
     * whoever changes the one changes the other.
     */
    public function of(Bag $bag): ?EarlierBag
    {
        $atMost = Keeping::read()->shareAtMost;
        if ($bag->isEncrypted() || $atMost < 2) {
            return null;
        }
        $latest = Bag::wholes()
            ->where('serial', $bag->serial)
            ->where('encryption', Encryption::None)
            ->whereIn('state', [BagState::Verified, BagState::Sealed])
            ->reorder()
            ->latest('taken_at')
            ->get()
            ->first(fn (Bag $b): bool => $this->bags->has($b->id));
        $earlier = $latest === null ? null : EarlierBag::open($this->bags->folder($latest->id), $atMost);
        if ($latest !== null && $earlier !== null) {
            $now = $this->clock->now();
            $latest->shared_at ?? $latest->update(['shared_at' => $now]);
            $bag->shared_at ?? $bag->update(['shared_at' => $now]);
        }

        return $earlier;
    }
}
