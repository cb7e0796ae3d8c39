<?php

declare(strict_types=1);

namespace App\Facts;

use JadeStep\Core\Bag\Item;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\Record\ItemImport;

/** One item that the proof found missing, with the bags that have it. */
final readonly class MissingItem
{
    /** @param  list<ItemPlace>  $places  those that are known to have it first */
    public function __construct(public Kind $kind, public Item $item, public array $places, public ?ItemImport $import)
    {
    }

    public function placeIn(string $bag): ?ItemPlace
    {
        foreach ($this->places as $place) {
            if ($place->bag === $bag) {
                return $place;
            }
        }

        return null;
    }

    public function isRestorable(): bool
    {
        return $this->kind->hasSideExport() && $this->places !== [];
    }
}
