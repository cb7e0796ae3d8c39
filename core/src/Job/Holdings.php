<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** All that a job rests on: while it is open, nobody takes any of it away. */
final readonly class Holdings
{
    /** @param  list<Holding>  $all */
    public function __construct(public array $all)
    {
    }

    public function bag(string $id): ?Holding
    {
        return $this->find(HoldingKind::Bag, $id);
    }

    public function package(string $sha256): ?Holding
    {
        return $this->find(HoldingKind::Package, $sha256);
    }

    private function find(HoldingKind $kind, string $id): ?Holding
    {
        foreach ($this->all as $holding) {
            if ($holding->kind === $kind && $holding->id === $id) {
                return $holding;
            }
        }

        return null;
    }
}
