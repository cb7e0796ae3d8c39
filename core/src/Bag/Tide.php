<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** What a bag holds over time, and how heavy its kinds are: amounts alone, without a name of anything. */
final readonly class Tide
{
    private const SPANS = 36;

    private const SHORTEST_SECONDS = 86_400;

    /**
     * @param  list<TideSpan>  $spans  of one length, without gaps, the oldest first
     * @param  array<string, int>  $bytes  by kind
     */
    private function __construct(public array $spans, public array $bytes)
    {
    }

    public static function of(Inventory $inventory): self
    {
        $times = array_map(static fn (Item $i): int => $i->modifiedAt->getTimestamp(), $inventory->items);
        $bytes = [];
        foreach ($inventory->items as $item) {
            $bytes[$item->kind] = ($bytes[$item->kind] ?? 0) + $item->bytes;
        }
        if ($times === []) {
            return new self([], $bytes);
        }
        $first = min($times);
        $length = max(self::SHORTEST_SECONDS, intdiv(max($times) - $first, self::SPANS) + 1);
        $many = intdiv(max($times) - $first, $length) + 1;
        $items = $weights = array_fill(0, $many, 0);
        foreach ($inventory->items as $item) {
            $at = intdiv($item->modifiedAt->getTimestamp() - $first, $length);
            $items[$at]++;
            $weights[$at] += $item->bytes;
        }
        $at = static fn (int $n): \DateTimeImmutable => new \DateTimeImmutable('@'.($first + $n * $length));

        return new self(array_map(
            static fn (int $n): TideSpan => new TideSpan($at($n), $at($n + 1), $items[$n], $weights[$n]),
            range(0, $many - 1),
        ), $bytes);
    }
}
