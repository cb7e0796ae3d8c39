<?php

declare(strict_types=1);

namespace Tests\Measure;

use JadeStep\Core\Route\Minutes;

/** How long things took, measured in runs before, as three-point times. */
final class StepTimes
{
    private const CUT = 0.05;

    /** @var array<string, list<float>> seconds, by what took them */
    private array $seconds = [];

    /** @param  list<array<string, list<float>>>  $runs  seconds of each, by what took them */
    public function __construct(array $runs)
    {
        $this->seconds = array_merge_recursive(...$runs);
    }

    /** With the mean and the deviation that were measured, but for the fastest and the slowest twentieth. */
    public function minutes(string $what): Minutes
    {
        $took = $this->seconds[$what] ?? throw new \OutOfBoundsException("No run has measured {$what}.");
        sort($took);
        $cut = (int) floor(count($took) * self::CUT);
        $took = array_slice($took, $cut, count($took) - 2 * $cut);
        $mean = array_sum($took) / count($took);
        $squares = array_map(static fn (float $s): float => ($s - $mean) ** 2, $took);

        return self::around($mean / 60, sqrt(array_sum($squares) / count($took)) / 60);
    }

    /** One after the other, with the mean and the deviation of both together. */
    public static function sum(Minutes $one, Minutes $other): Minutes
    {
        $sum = Minutes::sum($one, $other);

        return self::around($sum->expected, $sum->deviation);
    }

    /** Three points with this mean and this deviation, none below nothing. */
    private static function around(float $mean, float $deviation): Minutes
    {
        $low = max(0.0, $mean - 3 * $deviation);
        $high = $low + 6 * $deviation;

        return Minutes::of($low, max($low, (6 * $mean - $low - $high) / 4), $high);
    }

    /** @return array<string, array{int, Minutes}> how often each was measured, and its times */
    public function all(): array
    {
        return array_map(
            fn (string $what): array => [count($this->seconds[$what]), $this->minutes($what)],
            array_combine(array_keys($this->seconds), array_keys($this->seconds)),
        );
    }
}
