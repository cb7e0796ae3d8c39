<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Facts\ItemPlace;
use App\Facts\MissingItem;

/** A missing item, with the bags that have it. */
final readonly class MissingItemResource implements \JsonSerializable
{
    private function __construct(private MissingItem $missing)
    {
    }

    /**
     * @param  list<MissingItem>  $items
     * @return list<self>
     */
    public static function all(array $items): array
    {
        return array_map(static fn (MissingItem $m): self => new self($m), $items);
    }

    public function jsonSerialize(): mixed
    {
        $item = $this->missing->item;
        $import = $this->missing->import;

        return [
            'kind' => $item->kind, 'path' => $item->path, 'bytes' => $item->bytes, 'sha256' => $item->sha256,
            'oneByOne' => $this->missing->kind->hasSideExport(),
            'bags' => array_map(
                static fn (ItemPlace $p): array => ['id' => $p->bag, 'path' => $p->path, 'told' => $p->told],
                $this->missing->places,
            ),
            'import' => $import === null
                    ? null
                    : ['bag' => $import->bag, 'state' => $import->state->value, 'detail' => $import->detail],
        ];
    }
}
