<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** The comparison of an inventory before with a listing after. */
final readonly class Proof
{
    /** @param list<KindProof> $kinds in the order of the inventory before */
    public function __construct(public array $kinds) {}

    public function missing(): int
    {
        return array_sum(array_map(static fn (KindProof $k): int => count($k->missing), $this->kinds));
    }

    public function nothingMissing(): bool
    {
        return $this->missing() === 0;
    }
}
