<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** The comparison of an inventory before with a listing after. */
final readonly class Comparison
{
    /** @param  list<KindComparison>  $kinds in the order of the inventory before */
    public function __construct(public array $kinds)
    {
    }

    public function missing(): int
    {
        return array_sum(array_map(static fn (KindComparison $k): int => count($k->missing), $this->kinds));
    }

    public function nothingMissing(): bool
    {
        return $this->missing() === 0;
    }

    /**
     * Said only where nothing is missing and the ledger promised nothing else.
     *
     * @param  list<string>  $promisedLosses  what the accepted route named as a cost
     */
    public function nothingLost(array $promisedLosses): bool
    {
        return $this->nothingMissing() && $promisedLosses === [];
    }
}
