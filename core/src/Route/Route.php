<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/** The legs from the installed version to the goal, with what happens to every kind of data, the time and the bytes. */
final readonly class Route
{
    /**
     * @param  list<Leg>  $legs
     * @param  list<KindFate>  $kinds
     * @param  list<array{step: string, leg: int, minutes: Minutes}>  $steps  what its minutes are made of
     */
    public function __construct(
        public string $id,
        public array $legs,
        public int $fetchBytes,
        public int $diskPeakBytes,
        public Minutes $minutes,
        public ?Base $base,
        public array $kinds,
        public Losses $losses,
        public string $trade,
        public array $steps,
    ) {
    }

    /** @param  list<array{step: string, leg: int, minutes: Minutes}>  $steps */
    public function named(string $id, string $trade, array $steps): self
    {
        return new self($id, $this->legs, $this->fetchBytes, $this->diskPeakBytes, $this->minutes, $this->base, $this->kinds, $this->losses, $trade, $steps);
    }

    public function erases(): int
    {
        return count(array_filter($this->legs, static fn (Leg $leg): bool => $leg->move->erases()));
    }

    public function latestStart(): ?\DateTimeImmutable
    {
        $starts = array_filter(array_map(static fn (Leg $leg): ?\DateTimeImmutable => $leg->latestStart(), $this->legs));

        return $starts === [] ? null : min($starts);
    }
}
