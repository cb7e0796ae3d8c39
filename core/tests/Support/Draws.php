<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Support;

use Random\Engine\Mt19937;
use Random\Randomizer;

/** Draws by a seed: the same for the same one. */
trait Draws
{
    private Randomizer $random;

    private function seed(int $seed): void
    {
        $this->random = new Randomizer(new Mt19937($seed));
    }

    private function int(int $from, int $to): int
    {
        return $this->random->getInt($from, $to);
    }

    private function chance(int $percent): bool
    {
        return $this->int(1, 100) <= $percent;
    }

    /** @param  non-empty-list<string>  $from */
    private function pick(array $from): string
    {
        return $from[$this->int(0, count($from) - 1)];
    }

    /**
     * @param  list<string>  $from
     * @return list<string>
     */
    private function some(array $from, int $least, int $most): array
    {
        $shuffled = $this->random->shuffleArray($from);

        return array_slice($shuffled, 0, $this->int($least, $most));
    }
}
