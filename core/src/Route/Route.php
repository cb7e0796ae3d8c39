<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Copied;

/** The legs from the installed version to the goal, with what happens to every kind of data, the time and the bytes. */
final readonly class Route
{
    /**
     * @param  list<Leg>  $legs
     * @param  BaseUse|null  $base  null where the data never leaves the device
     * @param  list<KindFate>  $kinds
     * @param  int  $staleSeconds  the sum over the kinds of how far each is out of date
     * @param  list<StepEstimate>  $steps  what its minutes are made of
     * @param  \DateTimeImmutable|null  $latestStart  that still meets every window; null where no end is known
     */
    public function __construct(
        public string $id,
        public array $legs,
        public int $fetchBytes,
        public int $diskPeakBytes,
        public Minutes $minutes,
        public ?BaseUse $base,
        public array $kinds,
        public int $staleSeconds,
        public Losses $losses,
        public string $trade,
        public array $steps,
        public ?\DateTimeImmutable $latestStart,
    ) {
        $legs !== [] || throw new \LogicException('A route has at least one leg.');
    }

    public function named(string $id, string $trade): self
    {
        return Copied::with($this, id: $id, trade: $trade);
    }

    public function erases(): int
    {
        return count(array_filter($this->legs, static fn (Leg $leg): bool => $leg->move->erases()));
    }

    /** Whether data leaves the device on it, so that it has to come back. */
    public function hasReturn(): bool
    {
        return $this->base !== null;
    }

    public function leg(int $leg): Leg
    {
        return $this->legs[$leg] ?? throw new \LogicException("The route has no leg {$leg}.");
    }

    /** What it ends on. */
    public function end(): BuildName
    {
        return $this->legs[count($this->legs) - 1]->to;
    }

    /** Whether its last leg is an update in place, after an install. */
    public function endsWithStepUp(): bool
    {
        return count($this->legs) > 1 && $this->legs[count($this->legs) - 1]->move === Move::InPlaceUpdate;
    }

    public function packageBytes(): int
    {
        return array_sum(array_map(static fn (Leg $leg): int => $leg->package->bytes, $this->legs));
    }

    /** Whether another route is the same crossing with the same base: of a later plan, say. */
    public function isSameWayAs(self $other): bool
    {
        return $this->key() === $other->key();
    }

    private function key(): string
    {
        $legs = array_map(
            static fn (Leg $l): string => "{$l->move->value} {$l->to->version} {$l->to->build}",
            $this->legs,
        );
        $base = $this->base === null ? '' : "{$this->base->backup} {$this->base->treatment->value}";

        return implode(', ', $legs)." / {$base}";
    }
}
