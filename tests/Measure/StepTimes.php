<?php

declare(strict_types=1);

namespace Tests\Measure;

use JadeStep\Core\Route\Minutes;

/** How long things took, measured in runs before, as three-point times. */
final class StepTimes
{
    private const BELOW = 0.05;

    private const ABOVE = 0.95;

    /** @var array<string, list<float>> seconds, by what took them */
    private array $seconds = [];

    /** @param  array<string, list<float>>  $seconds  of one more run, by what took them */
    public function add(array $seconds): void
    {
        foreach ($seconds as $what => $took) {
            $this->seconds[$what] = [...$this->seconds[$what] ?? [], ...$took];
        }
    }

    /** From the fastest twentieth to the slowest, with the mean that was measured as far as that allows. */
    public function minutes(string $what): Minutes
    {
        $took = $this->seconds[$what] ?? throw new \OutOfBoundsException("No run has measured {$what}.");
        sort($took);
        [$low, $high] = [self::at($took, self::BELOW), self::at($took, self::ABOVE)];
        $likely = (6 * array_sum($took) / count($took) - $low - $high) / 4;

        return Minutes::of($low / 60, max($low, min($high, $likely)) / 60, $high / 60);
    }

    /** @return array<string, array{int, Minutes}> how often each was measured, and its times */
    public function all(): array
    {
        return array_map(
            fn (string $what): array => [count($this->seconds[$what]), $this->minutes($what)],
            array_combine(array_keys($this->seconds), array_keys($this->seconds)),
        );
    }

    /** @param  non-empty-list<float>  $sorted */
    private static function at(array $sorted, float $share): float
    {
        return $sorted[(int) round($share * (count($sorted) - 1))];
    }
}
