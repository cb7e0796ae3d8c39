<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Items;

/** What a bag that is being written has by now, and what it lacks of a listing: of either sort of bag the same. */
trait WrittenItems
{
    private readonly Items $written;

    private int $ownBytes = 0;

    /** Whether this very item is here already. */
    public function has(Item $item): bool
    {
        return $this->written->hold($item);
    }

    public function bytesOf(Inventory $listing): int
    {
        return $listing->items->bytesAlsoIn($this->written);
    }

    public function lacks(Inventory $listing): iterable
    {
        return $listing->items->notHeldBy($this->written);
    }

    /** Leaves out what the device no longer lists. */
    public function dropAllBut(Inventory $listing): void
    {
        $this->written->keepNamesOf($listing->items);
    }

    public function ownBytes(): int
    {
        return $this->ownBytes;
    }
}
