<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Tide;
use JadeStep\Core\Time\Rfc3339;

/** The items of one kind of a bag, or those that are looked for, the first of them. */
final readonly class ItemsResource implements \JsonSerializable
{
    private const SHOWN = 2000;

    /**
     * @param  string  $kind  empty for all kinds, where something is looked for
     * @param  string  $find  words that the path has
     */
    public function __construct(private Inventory $inventory, private string $kind, private string $find = '')
    {
    }

    public function jsonSerialize(): mixed
    {
        $words = array_filter(explode(' ', mb_strtolower($this->find)), static fn (string $w): bool => $w !== '');
        [$items, $many] = [[], 0];
        foreach ($this->asked() as $item) {
            if (self::has($item, $words) && ++$many <= self::SHOWN) {
                $items[] = $item;
            }
        }

        return [
            'counts' => (object) $this->inventory->counts(),
            'tide' => new TideResource(Tide::of($this->inventory)),
            'items' => array_map(
                static fn (Item $i): array => [
                    'kind' => $i->kind,
                    'path' => $i->path,
                    'bytes' => $i->bytes,
                    'sha256' => $i->sha256,
                    'modifiedAt' => Rfc3339::format($i->modifiedAt),
                ],
                $items,
            ),
            'more' => max(0, $many - self::SHOWN),
        ];
    }

    /** @return iterable<Item> */
    private function asked(): iterable
    {
        return match (true) {
            $this->kind !== '' => $this->inventory->items->ofKind($this->kind),
            $this->find !== '' => $this->inventory->items,
            default => [],
        };
    }

    /** @param  array<int, string>  $words  in lower case */
    private static function has(Item $item, array $words): bool
    {
        $path = mb_strtolower($item->path);

        return array_filter($words, static fn (string $w): bool => ! str_contains($path, $w)) === [];
    }
}
