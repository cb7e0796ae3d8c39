<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/** A three-point estimate in minutes (PERT): expected (a + 4m + b) / 6, standard deviation (b − a) / 6. */
final readonly class Minutes
{
    private function __construct(
        public float $low,
        public float $likely,
        public float $high,
        public float $expected,
        public float $deviation,
    ) {
    }

    public static function of(float $low, float $likely, float $high): self
    {
        return new self($low, $likely, $high, ($low + 4 * $likely + $high) / 6, ($high - $low) / 6);
    }

    /** As it was told before, rounded. */
    public static function told(float $low, float $likely, float $high, float $expected, float $deviation): self
    {
        return new self($low, $likely, $high, $expected, $deviation);
    }

    public static function none(): self
    {
        return self::of(0, 0, 0);
    }

    /** One after the other: expectations add up, deviations as the root of the summed squares. */
    public static function sum(self ...$steps): self
    {
        $add = static fn (string $field): float => array_sum(array_column($steps, $field));

        return new self(
            $add('low'),
            $add('likely'),
            $add('high'),
            $add('expected'),
            sqrt(array_sum(array_map(static fn (self $s): float => $s->deviation ** 2, $steps))),
        );
    }

    /** What is left of it after so many minutes: something always is, while it is not done. */
    public function leftAfter(float $minutes): self
    {
        $high = max($this->high - $minutes, $this->high / 10);
        $likely = min($high, max($this->likely - $minutes, $this->high / 20));

        return self::of(min($likely, max(0.0, $this->low - $minutes)), $likely, $high);
    }

    /** An upper bound for planning: expected plus two deviations. */
    public function cautious(): float
    {
        return $this->expected + 2 * $this->deviation;
    }
}
