<?php

declare(strict_types=1);

namespace JadeStep\Core\Evidence;

/**
 * How often something went well of so many times, with the 95 % Wilson score interval for how often it goes well
 * (E. B. Wilson, 1927, "Probable inference, the law of succession, and statistical inference").
 */
final readonly class Proportion
{
    /** The 97.5th percentile of the standard normal distribution. */
    public const Z = 1.959963984540054;

    /**
     * @param  float|null  $low  0 to 1; null where there is nothing to tell from
     * @param  float|null  $high  0 to 1
     */
    private function __construct(public int $successes, public int $trials, public ?float $low, public ?float $high)
    {
    }

    /** @throws \InvalidArgumentException where the successes are not among the trials */
    public static function of(int $successes, int $trials): self
    {
        if ($successes < 0 || $successes > $trials) {
            throw new \InvalidArgumentException("Of {$trials} times, {$successes} cannot have gone well.");
        }
        if ($trials === 0) {
            return new self(0, 0, null, null);
        }
        $z2 = self::Z ** 2;
        $p = $successes / $trials;
        $centre = $p + $z2 / (2 * $trials);
        $reach = self::Z * sqrt($p * (1 - $p) / $trials + $z2 / (4 * $trials ** 2));
        $bound = static fn (float $v): float => max(0.0, min(1.0, $v / (1 + $z2 / $trials)));

        return new self($successes, $trials, $bound($centre - $reach), $bound($centre + $reach));
    }
}
