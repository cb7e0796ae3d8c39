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
        $bytes = $inventory->items->bytesByKind();
        $seconds = $inventory->items->seconds();
        if ($seconds === null) {
            return new self([], $bytes);
        }
        [$first, $last] = $seconds;
        $length = max(self::SHORTEST_SECONDS, intdiv($last - $first, self::SPANS) + 1);
        $many = intdiv($last - $first, $length) + 1;
        $amounts = $inventory->items->perSpan($first, $length);
        $at = static fn (int $n): \DateTimeImmutable => new \DateTimeImmutable('@'.($first + $n * $length));

        return new self(array_map(
            static fn (int $n): TideSpan => new TideSpan($at($n), $at($n + 1), ...$amounts[$n] ?? [0, 0]),
            range(0, $many - 1),
        ), $bytes);
    }
}
