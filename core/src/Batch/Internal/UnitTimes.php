<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch\Internal;

/** When the units of one resource are taken, in seconds. Each unit does one thing at a time. */
final class UnitTimes
{
    /** @var list<list<int>> when each unit's spans begin, in order */
    private array $from = [];

    /** @var list<list<int>> when they end */
    private array $until = [];

    public function __construct(int $units)
    {
        $this->from = array_fill(0, $units, []);
        $this->until = array_fill(0, $units, []);
    }

    /**
     * The first moment from a time on at which a unit is free for so long, and that unit.
     *
     * @return array{int, int}
     */
    public function firstFree(int $time, int $seconds): array
    {
        $best = PHP_INT_MAX;
        $at = 0;
        foreach ($this->from as $unit => $from) {
            $start = $this->freeOf($unit, $from, $time, $seconds);
            if ($start === $time) {
                return [$time, $unit];
            }
            if ($start < $best) {
                [$best, $at] = [$start, $unit];
            }
        }

        return [$best, $at];
    }

    public function take(int $unit, int $time, int $seconds): void
    {
        $at = self::firstAfter($this->from[$unit], $time);
        if ($at === count($this->from[$unit])) {
            $this->from[$unit][] = $time;
            $this->until[$unit][] = $time + $seconds;

            return;
        }
        array_splice($this->from[$unit], $at, 0, [$time]);
        array_splice($this->until[$unit], $at, 0, [$time + $seconds]);
    }

    /** @param  list<int>  $from */
    private function freeOf(int $unit, array $from, int $time, int $seconds): int
    {
        $until = $this->until[$unit];
        $count = count($until);
        // most look for room behind everything
        if ($count === 0 || $until[$count - 1] <= $time) {
            return $time;
        }
        for ($i = self::firstAfter($until, $time); $i < $count; $i++) {
            if ($time + $seconds <= $from[$i]) {
                return $time;
            }
            $time = max($time, $until[$i]);
        }

        return $time;
    }

    /**
     * @param  list<int>  $sorted
     * @return int the place of the first that is greater
     */
    private static function firstAfter(array $sorted, int $value): int
    {
        [$low, $high] = [0, count($sorted)];
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($sorted[$middle] > $value) {
                $high = $middle;
            } else {
                $low = $middle + 1;
            }
        }

        return $low;
    }
}
