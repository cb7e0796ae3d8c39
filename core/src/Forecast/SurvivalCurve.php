<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/**
 * The estimate of Kaplan and Meier (1958) of how many outlast a time, with Greenwood's variance (1926), from durations
 * of which some are only known as "at least so long". Times are in the unit of what was given.
 */
final readonly class SurvivalCurve
{
    /** What a chance may differ from one half by to count as it: products of fractions are not exact. */
    private const SAME = 1e-9;

    /**
     * @param  list<CurveStep>  $steps  in the order of time
     * @param  float  $from  the age that those it speaks of have reached
     */
    private function __construct(public array $steps, public float $from)
    {
    }

    /** @param  list<Lasted>  $lasted */
    public static function of(array $lasted): self
    {
        return self::since(0.0, $lasted, -1.0);
    }

    /**
     * The curve of those that have reached an age: what is known of younger ends says nothing about them.
     *
     * @param  list<Lasted>  $lasted
     */
    public static function ofAge(float $age, array $lasted): self
    {
        return self::since($age, $lasted, $age);
    }

    /** @param  list<Lasted>  $lasted */
    private static function since(float $from, array $lasted, float $after): self
    {
        $watched = array_values(array_filter($lasted, static fn (Lasted $one): bool => $one->time > $after));
        usort($watched, static fn (Lasted $a, Lasted $b): int => $a->time <=> $b->time);
        [$steps, $atRisk, $survival, $variance] = [[], count($watched), 1.0, 0.0];
        while ($atRisk > 0) {
            $time = $watched[count($watched) - $atRisk]->time;
            [$ended, $lastSeen] = self::endingAt($time, array_slice($watched, count($watched) - $atRisk));
            $left = $atRisk - $ended;
            $survival *= $left / $atRisk;
            $variance += $ended === 0 ? 0.0 : ($left === 0 ? INF : $ended / ($atRisk * $left));
            $steps[] = new CurveStep($time, $atRisk, $ended, $lastSeen, $survival, $variance);
            $atRisk = $left - $lastSeen;
        }

        return new self($steps, $from);
    }

    /**
     * @param  list<Lasted>  $watched  in the order of time
     * @return array{int, int} how many ended at the time, and how many were last seen then
     */
    private static function endingAt(float $time, array $watched): array
    {
        [$ended, $lastSeen] = [0, 0];
        foreach ($watched as $one) {
            if ($one->time > $time) {
                break;
            }
            $one->ended ? $ended++ : $lastSeen++;
        }

        return [$ended, $lastSeen];
    }

    /** The last step that is not later than a time; null before the first. */
    public function stepAt(float $time): ?CurveStep
    {
        $found = null;
        foreach ($this->steps as $step) {
            if ($step->time > $time) {
                break;
            }
            $found = $step;
        }

        return $found;
    }

    /** The chance to outlast a time, for one that has reached the curve's age. */
    public function chanceAt(float $time): float
    {
        return $this->stepAt($time)->survival ?? 1.0;
    }

    /** The longest that anything was watched; null where nothing was. */
    public function longest(): ?float
    {
        return $this->steps === [] ? null : $this->steps[count($this->steps) - 1]->time;
    }

    public function ends(): int
    {
        return array_sum(array_map(static fn (CurveStep $s): int => $s->ended, $this->steps));
    }

    /**
     * By which time so many are left; null where the curve does not come down to it. Where it lies level at exactly
     * that share, the middle of the level, as statistics programs have it.
     *
     * @param  float  $share  between 0 and 1: 0.5 gives the median
     */
    public function timeOfShare(float $share): ?float
    {
        $level = null;
        foreach ($this->steps as $step) {
            if ($level !== null && $step->survival < $share - self::SAME) {
                return ($level + $step->time) / 2;
            }
            if ($level === null && abs($step->survival - $share) <= self::SAME) {
                $level = $step->time;
            } elseif ($level === null && $step->survival < $share) {
                return $step->time;
            }
        }

        return $level;
    }
}
