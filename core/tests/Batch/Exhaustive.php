<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Batch;

use JadeStep\Core\Batch\Batch;
use JadeStep\Core\Batch\BatchDevice;
use JadeStep\Core\Batch\BatchStep;

/**
 * The shortest time in which a small batch can be done, by trying every order of starts: each step in turn at the first
 * moment that is not before the last start. What cannot be shorter than the best is not gone into. Written without the
 * scheduler, for chains of whole minutes.
 */
final class Exhaustive
{
    private int $best;

    /** @var list<list<int>> minutes */
    private array $minutes;

    /** @var list<list<list<string>>> */
    private array $needs;

    private int $ports;

    /** @var array<string, true> what was gone into already */
    private array $seen = [];

    private function __construct(private readonly Batch $batch, int $upTo)
    {
        $this->best = $upTo;
        $this->minutes = array_map(static fn (BatchDevice $d): array => array_map(
            static fn (BatchStep $s): int => (int) $s->minutes->likely,
            $d->steps,
        ), $batch->devices);
        $this->needs = array_map(static fn (BatchDevice $d): array => array_map(
            static fn (BatchStep $s): array => array_values(array_diff($s->needs, ['port'])),
            $d->steps,
        ), $batch->devices);
        $this->ports = $batch->workshop->units['port'] ?? PHP_INT_MAX;
    }

    /** @param  int  $upTo  minutes that are known to be enough */
    public static function makespan(Batch $batch, int $upTo): int
    {
        $search = new self($batch, $upTo);
        $free = array_map(static fn (int $units): array => array_fill(0, $units, 0), $batch->workshop->units);
        $search->goOn(array_fill(0, count($batch->devices), 0), array_fill(0, count($batch->devices), 0), $free, 0);

        return $search->best;
    }

    /**
     * @param  list<int>  $done  how many steps of each job are placed
     * @param  list<int>  $ready  when the next of each may begin
     * @param  array<string, list<int>>  $free  when the units of everything get free
     */
    private function goOn(array $done, array $ready, array $free, int $last): void
    {
        $isDone = true;
        foreach ($this->minutes as $job => $minutes) {
            $left = array_sum(array_slice($minutes, $done[$job]));
            $isDone = $isDone && $left === 0;
            if (max($ready[$job], $left === 0 ? 0 : $last) + $left >= $this->best) {
                return;
            }
        }
        if ($isDone) {
            $this->best = max($ready);

            return;
        }
        $name = json_encode([$done, $ready, array_map(self::sorted(...), $free), $last]);
        if (isset($this->seen[$name]) || $this->isTooMuch($done, $free, $last)) {
            return;
        }
        $this->seen[$name] = true;
        foreach ($this->minutes as $job => $minutes) {
            $start = $done[$job] < count($minutes) ? $this->start($job, $done, $ready, $free, $last) : null;
            if ($start !== null) {
                $end = $start + $minutes[$done[$job]];
                $then = $free;
                foreach ($this->needs[$job][$done[$job]] as $name) {
                    sort($then[$name]);
                    $then[$name][0] = $end;
                }
                $this->goOn(
                    array_replace($done, [$job => $done[$job] + 1]),
                    array_replace($ready, [$job => $end]),
                    $then,
                    $start,
                );
            }
        }
    }

    /**
     * Whether the work that is left for all the units of something is more than there is time for.
     *
     * @param  list<int>  $done
     * @param  array<string, list<int>>  $free
     */
    private function isTooMuch(array $done, array $free, int $last): bool
    {
        foreach ($free as $name => $units) {
            $work = array_sum(array_map(static fn (int $from): int => max($from, $last), $units));
            foreach ($this->needs as $job => $needs) {
                foreach (array_slice($needs, $done[$job], null, true) as $step => $names) {
                    $work += in_array($name, $names, true) ? $this->minutes[$job][$step] : 0;
                }
            }
            if ($work > ($this->best - 1) * count($units)) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  list<int>  $units
     * @return list<int>
     */
    private static function sorted(array $units): array
    {
        sort($units);

        return $units;
    }

    /**
     * @param  list<int>  $done
     * @param  list<int>  $ready
     * @param  array<string, list<int>>  $free
     * @return int|null null where no port is known to get free for it
     */
    private function start(int $job, array $done, array $ready, array $free, int $last): ?int
    {
        $start = max($last, $ready[$job]);
        foreach ($this->needs[$job][$done[$job]] as $name) {
            $start = max($start, min($free[$name]));
        }
        if ($done[$job] > 0) {
            return $start;
        }
        $held = [];
        foreach ($done as $other => $placed) {
            if ($placed > 0) {
                $held[] = $placed < count($this->minutes[$other]) ? PHP_INT_MAX : $ready[$other];
            }
        }
        rsort($held);
        $free = $held[$this->ports - 1] ?? 0;

        return $free === PHP_INT_MAX ? null : max($start, $free);
    }
}
