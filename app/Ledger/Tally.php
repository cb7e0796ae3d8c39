<?php

declare(strict_types=1);

namespace App\Ledger;

/** How many items of each kind have gone over, of how many. */
final class Tally
{
    /** @var array<string, int> */
    private array $done = [];

    /** @param  array<string, int>  $all  items in all, by kind */
    public function __construct(private readonly array $all)
    {
    }

    public function count(string $kind): void
    {
        $this->done[$kind] = ($this->done[$kind] ?? 0) + 1;
    }

    /** @return array<string, list<int>> done, and in all */
    public function fields(): array
    {
        $kinds = array_keys(array_filter($this->all, static fn (int $of): bool => $of > 0));

        return array_combine(
            $kinds,
            array_map(fn (string $kind): array => [$this->done[$kind] ?? 0, $this->all[$kind]], $kinds),
        );
    }
}
