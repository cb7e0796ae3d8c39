<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;

/** The legs of a route, each within a signing window, before it is decided what is put back at the end. */
final readonly class Crossing
{
    /** @param  non-empty-list<PlannedLeg>  $legs */
    public function __construct(public array $legs)
    {
    }

    public function end(): Build
    {
        return $this->legs[count($this->legs) - 1]->to;
    }

    public function erases(): int
    {
        return count(array_filter($this->legs, static fn (PlannedLeg $l): bool => $l->move->erases()));
    }

    public function fetchBytes(): int
    {
        return array_sum(array_map(static fn (PlannedLeg $l): int => $l->package->bytes, $this->legs));
    }

    /** Tells apart which builds are reached by which moves, whatever package is taken for each. */
    public function way(): string
    {
        return implode(' ', array_map(
            static fn (PlannedLeg $l): string => $l->move->value.spl_object_id($l->to),
            $this->legs,
        ));
    }

    /** Whether its windows end later than those of the same legs with other packages, the first leg counting first. */
    public function endsAfter(self $other): bool
    {
        foreach ($this->legs as $i => $leg) {
            [$mine, $theirs] = [$leg->window, $other->legs[$i]->window];
            if ($mine !== null && $theirs !== null && $mine->endsAfter($theirs)) {
                return true;
            }
            if ($mine !== null && $theirs !== null && $theirs->endsAfter($mine)) {
                return false;
            }
        }

        return false;
    }
}
