<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch\Internal;

use JadeStep\Core\Batch\Effort;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/**
 * Betters a schedule by trying others near it: late acceptance hill climbing (Burke and Bykov, 2017), which takes what
 * is no worse than what it had some tries ago. A neighbour is another order of the starts: one device's steps earlier
 * or later, one step's, or two neighbours on a unit exchanged.
 */
final class Search
{
    private const MEMORY = 40;

    public bool $ranOutOfTime = false;

    private Randomizer $chance;

    /** @param  \Closure(): float|null  $clock  in seconds */
    public function __construct(
        private readonly Problem $problem,
        private readonly Decoder $decoder,
        private readonly Effort $effort,
        private readonly ?\Closure $clock,
    ) {
        $this->chance = new Randomizer(new Xoshiro256StarStar($effort->seed));
    }

    public function better(Placement $first): Placement
    {
        [$best, $now] = [$first, $first];
        [$bestScore, $score] = [$first->score(), $first->score()];
        $memory = array_fill(0, self::MEMORY, $score);
        $end = $this->clock === null ? INF : ($this->clock)() + $this->effort->seconds;
        $tries = count($this->problem->jobs) < 2 ? 0 : $this->effort->triesFor(count($this->problem->jobs));
        for ($try = 0; $try < $tries; $try++) {
            if ($this->clock !== null && ($this->clock)() > $end) {
                $this->ranOutOfTime = true;
                break;
            }
            $near = $this->decoder->place($this->near($now));
            $nearScore = $near->score();
            if ($nearScore <= $score || $nearScore <= $memory[$try % self::MEMORY]) {
                [$now, $score] = [$near, $nearScore];
            }
            $memory[$try % self::MEMORY] = $score;
            if ($nearScore < $bestScore) {
                [$best, $bestScore] = [$near, $nearScore];
            }
        }

        return $best;
    }

    /** @return array<int, float> keys: the starts, with something changed */
    private function near(Placement $now): array
    {
        $keys = array_map(floatval(...), $now->starts);
        $last = max([1, ...$now->ends]);
        match ($this->chance->getInt(0, 2)) {
            0 => $this->moveDevice($keys, $last),
            1 => $this->moveStep($keys, $last),
            2 => $this->exchange($keys, $now),
        };

        return $keys;
    }

    /** @param  array<int, float>  $keys */
    private function moveDevice(array &$keys, int $last): void
    {
        $by = $this->chance->getInt(-$last, $last) / 2;
        foreach ($this->problem->stepsOf[$this->chance->getInt(0, count($this->problem->stepsOf) - 1)] as $step) {
            $keys[$step] += $by;
        }
    }

    /** @param  array<int, float>  $keys */
    private function moveStep(array &$keys, int $last): void
    {
        $step = $this->chance->getInt(0, count($this->problem->jobs) - 1);
        $keys[$step] += $this->chance->getInt(-$last, $last) / 5;
    }

    /** @param  array<int, float>  $keys */
    private function exchange(array &$keys, Placement $now): void
    {
        $step = $this->chance->getInt(0, count($this->problem->jobs) - 1);
        $name = array_key_first($now->units[$step]);
        $next = $name === null ? null : $this->nextOnUnit($now, $step, $name);
        if ($next !== null) {
            $keys[$step] = $now->starts[$next] + 0.5;
            $keys[$next] = $now->starts[$step] - 0.5;
        }
    }

    private function nextOnUnit(Placement $now, int $step, string $name): ?int
    {
        $found = null;
        foreach ($now->units as $other => $units) {
            if (
                ($units[$name] ?? null) === $now->units[$step][$name]
                && $now->starts[$other] > $now->starts[$step]
                && ($found === null || $now->starts[$other] < $now->starts[$found])
            ) {
                $found = $other;
            }
        }

        return $found;
    }
}
