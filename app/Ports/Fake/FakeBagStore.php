<?php

declare(strict_types=1);

namespace App\Ports\Fake;

use App\Ports\BagStore;

/** Knows which bags are there without a disk; a removed one is gone. */
final class FakeBagStore implements BagStore
{
    /** @param  list<string>  $there  ids */
    public function __construct(private array $there = [], private readonly int $free = PHP_INT_MAX)
    {
    }

    public function folder(string $bagId): string
    {
        return "/nowhere/{$bagId}";
    }

    public function has(string $bagId): bool
    {
        return in_array($bagId, $this->there, true);
    }

    public function remove(string $bagId): void
    {
        $this->there = array_values(array_diff($this->there, [$bagId]));
    }

    public function freeBytes(): int
    {
        return $this->free;
    }
}
