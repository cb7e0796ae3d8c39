<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch\Internal;

use JadeStep\Core\Batch\Waiting;

/**
 * The serial schedule-generation scheme (Kelley, 1963; Kolisch, 1996): one step after the other, in the order of their
 * keys among those that may come next, each at the first moment at which all that it needs is free. A port is kept from
 * a job's first step to its last; so a job begins on a port only once everything before it on that port is placed.
 *
 * It is run hundreds of times for one schedule, so what is asked for at every step is kept at hand.
 */
final class Decoder
{
    /** @var array<string, UnitTimes> */
    private array $times = [];

    private Hours $hours;

    /** @var array<int, int> by port that is free, from when on */
    private array $portFree = [];

    /** @var array<int, int> how many steps of each job are left */
    private array $left = [];

    /** @var array<int, int> how many steps before each are left */
    private array $before = [];

    /** @var array<int, int> since when each step could begin but for what it needs */
    private array $ready = [];

    /** @var array<int, int> by step that may come next, the same */
    private array $open = [];

    /** @var array<int, int> by step that may come next once its job has a port, the same */
    private array $entering = [];

    private Placement $placed;

    public function __construct(private readonly Problem $problem)
    {
    }

    /**
     * @param  array<int, float>  $keys  by step: the lowest comes first
     * @param  bool  $byTime  whether who could begin first comes first, and keys only tell between equals
     */
    public function place(array $keys, bool $byTime = false): Placement
    {
        $this->begin();
        $this->placeWhatRuns();
        while ($this->open !== [] || $this->entering !== []) {
            $this->placeStep($byTime ? $this->chooseByTime($keys) : $this->choose($keys));
        }

        return $this->placed;
    }

    private function begin(): void
    {
        $p = $this->problem;
        $this->times = array_map(static fn (int $units): UnitTimes => new UnitTimes($units), $p->units);
        $this->hours = new Hours($p->spans);
        $this->portFree = $p->ports === 0 ? [] : array_fill(0, $p->ports, 0);
        $this->left = array_map(count(...), $p->stepsOf);
        $this->before = array_map(count(...), $p->after);
        $this->ready = $p->notBefore;
        [$this->open, $this->entering] = [[], []];
        $this->placed = new Placement($p);
        foreach ($p->onPort as $job => $port) {
            if ($port !== null && $p->needsPort[$job] && $this->left[$job] > 0) {
                unset($this->portFree[$port]);
                $this->placed->ports[$job] = $port;
            }
        }
        foreach ($this->before as $step => $count) {
            if ($count === 0) {
                $this->open($step);
            }
        }
    }

    private function open(int $step): void
    {
        $job = $this->problem->jobs[$step];
        if ($this->problem->needsPort[$job] && ! isset($this->placed->ports[$job])) {
            $this->entering[$step] = $this->ready[$step];
        } else {
            $this->open[$step] = $this->ready[$step];
        }
    }

    /** What runs has all that it needs already. */
    private function placeWhatRuns(): void
    {
        foreach (array_keys($this->open) as $step) {
            if ($this->problem->runs[$step]) {
                $this->placeStep($step);
            }
        }
    }

    /** @param  array<int, float>  $keys */
    private function choose(array $keys): int
    {
        [$best, $bestKey] = [-1, INF];
        foreach ($this->open as $step => $_) {
            if ($keys[$step] < $bestKey || $best < 0) {
                [$best, $bestKey] = [$step, $keys[$step]];
            }
        }
        foreach ($this->portFree === [] ? [] : $this->entering as $step => $_) {
            if ($keys[$step] < $bestKey || $best < 0) {
                [$best, $bestKey] = [$step, $keys[$step]];
            }
        }

        return $best >= 0 ? $best : throw self::stuck();
    }

    /** @param  array<int, float>  $keys */
    private function chooseByTime(array $keys): int
    {
        [$best, $bestTime, $bestKey] = [-1, PHP_INT_MAX, INF];
        foreach ($this->open as $step => $time) {
            if ($best < 0 || $time < $bestTime || ($time === $bestTime && $keys[$step] < $bestKey)) {
                [$best, $bestTime, $bestKey] = [$step, $time, $keys[$step]];
            }
        }
        $firstFree = $this->portFree === [] ? 0 : min($this->portFree);
        foreach ($this->portFree === [] ? [] : $this->entering as $step => $ready) {
            $time = max($firstFree, $ready);
            if ($best < 0 || $time < $bestTime || ($time === $bestTime && $keys[$step] < $bestKey)) {
                [$best, $bestTime, $bestKey] = [$step, $time, $keys[$step]];
            }
        }

        return $best >= 0 ? $best : throw self::stuck();
    }

    private static function stuck(): \LogicException
    {
        return new \LogicException('A job that is on a port has a step that may come next.');
    }

    private function placeStep(int $step): void
    {
        $p = $this->problem;
        $ready = $this->ready[$step];
        $start = $ready;
        $why = $p->notBefore[$step] > 0 && $ready === $p->notBefore[$step] ? Waiting::ForMoment : null;
        if (isset($this->entering[$step])) {
            $start = $this->enter($p->jobs[$step], $ready);
            $why = $start > $ready ? Waiting::ForPort : $why;
        }
        $seconds = $p->durations[$step];
        $units = [];
        if ($seconds > 0 && $p->needs[$step] !== []) {
            [$start, $units, $why] = $p->runs[$step]
                ? [$start, $this->anyUnits($step, $start, $seconds), null]
                : $this->firstFit($step, $start, $seconds, $why);
            foreach ($units as $name => $unit) {
                $this->times[$name]->take($unit, $start, $seconds);
            }
        }
        $this->placed->add($step, $start, $start + $seconds, $units, $start - $ready, $why);
        $this->goOn($step, $start + $seconds);
    }

    /** Gives a job the port that is free last before it could begin, or else the first that gets free. */
    private function enter(int $job, int $time): int
    {
        [$best, $bestFree] = [-1, PHP_INT_MAX];
        foreach ($this->portFree as $port => $free) {
            $isBetter = $bestFree <= $time ? $free <= $time && $free > $bestFree : $free < $bestFree;
            if ($best < 0 || $isBetter) {
                [$best, $bestFree] = [$port, $free];
            }
        }
        unset($this->portFree[$best]);
        $this->placed->ports[$job] = $best;
        // what else of the job may begin has its port now
        foreach ($this->problem->stepsOf[$job] as $step) {
            if (isset($this->entering[$step])) {
                unset($this->entering[$step]);
                $this->ready[$step] = max($this->ready[$step], $bestFree);
                $this->open[$step] = $this->ready[$step];
            }
        }

        return max($time, $bestFree);
    }

    /** @return array<string, int> */
    private function anyUnits(int $step, int $start, int $seconds): array
    {
        $units = [];
        foreach ($this->problem->needs[$step] as $name) {
            $units[$name] = $this->times[$name]->firstFree($start, $seconds)[1];
        }

        return $units;
    }

    /** @return array{int, array<string, int>, Waiting|null} when, on which units, and what it waited for last */
    private function firstFit(int $step, int $start, int $seconds, ?Waiting $why): array
    {
        $needs = $this->problem->needs[$step];
        $byHand = $this->problem->byHand[$step];
        $isOnce = ! $byHand && ! isset($needs[1]);
        do {
            $before = $start;
            if ($byHand) {
                $start = $this->hours->firstFit($start, $seconds);
                $why = $start > $before ? Waiting::ForHours : $why;
            }
            $units = [];
            foreach ($needs as $name) {
                [$free, $units[$name]] = $this->times[$name]->firstFree($start, $seconds);
                if ($free > $start) {
                    [$start, $why] = [$free, Waiting::forNeed($name)];
                }
            }
        } while ($start > $before && ! $isOnce);

        return [$start, $units, $why];
    }

    private function goOn(int $step, int $end): void
    {
        $p = $this->problem;
        unset($this->open[$step]);
        foreach ($p->next[$step] as $next) {
            if ($end > $this->ready[$next]) {
                $this->ready[$next] = $end;
            }
            if (--$this->before[$next] === 0) {
                $this->open($next);
            }
        }
        $job = $p->jobs[$step];
        if (--$this->left[$job] === 0 && isset($this->placed->ports[$job])) {
            $this->portFree[$this->placed->ports[$job]] = $this->placed->finishOf($job);
        }
    }
}
