<?php

declare(strict_types=1);

namespace Tests\Measure;

use JadeStep\Core\Route\Minutes;

/** How long things took, measured in runs before, as three-point times. */
final class StepTimes
{
    /** @var array<string, non-empty-list<float>> seconds, by what took them */
    private array $seconds;

    /** @param  list<array<string, non-empty-list<float>>>  $runs  seconds of each, by what took them */
    public function __construct(array $runs)
    {
        $this->seconds = array_merge_recursive(...$runs);
    }

    /** By itself, or on top of a time that it comes after. */
    public function minutes(string $what, ?Minutes $before = null): Minutes
    {
        $took = $this->seconds[$what] ?? throw new \OutOfBoundsException("No run has measured {$what}.");
        $before ??= Minutes::none();
        [$mean, $variance] = self::moments($took);

        return self::around(
            $before->expected + $mean / 60,
            sqrt($before->deviation ** 2 + $variance / 3600),
        );
    }

    public static function certain(float $seconds): Minutes
    {
        return Minutes::of(...array_fill(0, 3, max(0.0, $seconds) / 60));
    }

    /**
     * @param  non-empty-list<float>  $values
     * @return array{float, float} their mean and variance
     */
    private static function moments(array $values): array
    {
        $mean = array_sum($values) / count($values);
        $squares = array_map(static fn (float $v): float => ($v - $mean) ** 2, $values);

        return [$mean, array_sum($squares) / max(1, count($values) - 1)];
    }

    /** Three points with this mean, and with this deviation where none of them would be below nothing. */
    private static function around(float $mean, float $deviation): Minutes
    {
        $deviation = min($deviation, $mean);
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
