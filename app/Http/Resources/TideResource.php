<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Bag\Tide;
use JadeStep\Core\Bag\TideSpan;
use JadeStep\Core\Time\Rfc3339;

/** What a bag holds over time, in amounts. */
final readonly class TideResource implements \JsonSerializable
{
    public function __construct(private Tide $tide)
    {
    }

    public function jsonSerialize(): mixed
    {
        return [
            'bytes' => (object) $this->tide->bytes,
            'spans' => array_map(static fn (TideSpan $s): array => [
                'from' => Rfc3339::format($s->from),
                'until' => Rfc3339::format($s->until),
                'items' => $s->items,
                'bytes' => $s->bytes,
            ], $this->tide->spans),
        ];
    }
}
