<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/** What a route costs, in the order in which it counts. */
final readonly class Price
{
    private function __construct(
        public int $lost,
        public int $atRisk,
        public int $staleness,
        public int $erases,
        public float $minutes,
        public int $bytes,
    ) {
    }

    public static function of(Route $route): self
    {
        return new self(
            count($route->losses->lost),
            count($route->losses->atRisk),
            $route->staleSeconds,
            $route->erases(),
            round($route->minutes->expected, 6),
            $route->fetchBytes,
        );
    }

    public function compare(self $other): int
    {
        return $this->vector() <=> $other->vector();
    }

    /** Whether this is nowhere dearer and somewhere cheaper. */
    public function beats(self $other): bool
    {
        $better = false;
        foreach (array_map(null, $this->vector(), $other->vector()) as [$mine, $theirs]) {
            if ($mine > $theirs) {
                return false;
            }
            $better = $better || $mine < $theirs;
        }

        return $better;
    }

    /** @return list<int|float> */
    private function vector(): array
    {
        return [$this->lost, $this->atRisk, $this->staleness, $this->erases, $this->minutes, $this->bytes];
    }
}
