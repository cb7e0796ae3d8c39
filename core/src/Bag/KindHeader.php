<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** The line that opens a kind in an inventory: how many items follow, and the schema of their store. */
final readonly class KindHeader
{
    public function __construct(public string $kind, public int $items, public ?int $storeSchema)
    {
    }
}
