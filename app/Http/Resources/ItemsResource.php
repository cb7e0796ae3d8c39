<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Time\Rfc3339;

/** The items of one kind of a bag, the first of them. */
final readonly class ItemsResource implements \JsonSerializable
{
    private const SHOWN = 2000;

    public function __construct(private Inventory $inventory, private string $kind)
    {
    }

    public function jsonSerialize(): mixed
    {
        $items = array_values(array_filter($this->inventory->items, fn (Item $i): bool => $i->kind === $this->kind));

        return [
            'items' => array_map(
                static fn (Item $i): array => [
                    'path' => $i->path,
                    'bytes' => $i->bytes,
                    'sha256' => $i->sha256,
                    'modifiedAt' => Rfc3339::format($i->modifiedAt),
                ],
                array_slice($items, 0, self::SHOWN),
            ),
            'more' => max(0, count($items) - self::SHOWN),
        ];
    }
}
