<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;

/** The legs of a route, before it is decided what is put back at the end. */
final readonly class Crossing
{
    /**
     * @param  list<PlannedLeg>  $legs
     * @param  Minutes  $minutes  until the last leg's build runs
     */
    private function __construct(public array $legs, public Installed $installed, public Minutes $minutes)
    {
    }

    public static function start(Installed $installed, Minutes $safeguard): self
    {
        return new self([], $installed, $safeguard);
    }

    public function with(PlannedLeg $leg, Minutes $after): self
    {
        return new self([...$this->legs, $leg], $this->installed->after($leg->to), Minutes::sum($leg->before, $after));
    }

    public function end(): Build
    {
        return $this->legs === []
            ? throw new \LogicException('A crossing has at least one leg.')
            : $this->legs[count($this->legs) - 1]->to;
    }

    public function erases(): int
    {
        return count(array_filter($this->legs, static fn (PlannedLeg $l): bool => $l->move->erases()));
    }

    /** The latest start that still meets every window whose end is known. */
    public function latestStart(): ?\DateTimeImmutable
    {
        $starts = array_filter(
            array_map(static fn (PlannedLeg $leg): ?\DateTimeImmutable => $leg->latestStart(), $this->legs),
        );

        return $starts === [] ? null : min($starts);
    }

    public function fetchBytes(): int
    {
        return array_sum(array_map(static fn (PlannedLeg $l): int => $l->package->bytes, $this->legs));
    }

    public function visits(Build $build): bool
    {
        foreach ($this->legs as $leg) {
            if ($leg->to === $build) {
                return true;
            }
        }

        return false;
    }
}
