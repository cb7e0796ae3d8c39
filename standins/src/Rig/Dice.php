<?php

declare(strict_types=1);

namespace Standins\Rig;

/** A small linear congruential generator (Numerical Recipes' constants, from memory), so that content repeats. */
final class Dice
{
    public function __construct(private int $state)
    {
    }

    public function next(int $below): int
    {
        $this->state = ($this->state * 1_664_525 + 1_013_904_223) & 0xFFFFFFFF;

        return $this->state % max(1, $below);
    }
}
