<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Bag\Comparison;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Items;
use JadeStep\Core\Bag\KindComparison;

/** What the one bag has that the other lacks, and the other way round. */
final readonly class ComparisonResource implements \JsonSerializable
{
    private const SHOWN = 200;

    public function __construct(private Comparison $proof)
    {
    }

    public function jsonSerialize(): mixed
    {
        $paths = static fn (Items $items): array => array_map(
            static fn (Item $i): string => $i->path,
            $items->first(self::SHOWN),
        );

        return [
            'kinds' => array_map(
                static fn (KindComparison $k): array => [
                    'kind' => $k->kind,
                    'same' => $k->same,
                    'onlyHere' => $paths($k->missing),
                    'onlyThere' => $paths($k->extra),
                    'moreHere' => max(0, count($k->missing) - self::SHOWN),
                    'moreThere' => max(0, count($k->extra) - self::SHOWN),
                ],
                $this->proof->kinds,
            ),
        ];
    }
}
