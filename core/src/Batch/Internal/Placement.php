<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch\Internal;

use JadeStep\Core\Batch\Waiting;

/** Where the steps of a problem were placed. */
final class Placement
{
    /** @var array<int, int> by step, in the order in which they were placed */
    public array $starts = [];

    /** @var array<int, int> by step */
    public array $ends = [];

    /** @var array<int, array<string, int>> by step, which unit of what it needs */
    public array $units = [];

    /** @var array<int, int> by job, which port */
    public array $ports = [];

    /** @var array<int, array{Waiting, int}> by step that had to wait, what for and how many seconds */
    public array $waits = [];

    public function __construct(private readonly Problem $problem)
    {
    }

    /** @param  array<string, int>  $units */
    public function add(int $step, int $start, int $end, array $units, int $waited, ?Waiting $why): void
    {
        $this->starts[$step] = $start;
        $this->ends[$step] = $end;
        $this->units[$step] = $units;
        if ($why !== null && ($waited > 0 || $why === Waiting::ForMoment)) {
            $this->waits[$step] = [$why, $waited];
        }
    }

    public function finishOf(int $job): int
    {
        $finish = 0;
        foreach ($this->problem->lastOf[$job] as $step) {
            $finish = max($finish, $this->ends[$step]);
        }

        return $finish;
    }

    /** When the last device is done; every fetch comes before one. */
    public function lastFinish(): int
    {
        return max([0, ...$this->ends]);
    }

    /** Whether a window closes before the step that has to begin in it does. */
    public function missesWindow(int $job): bool
    {
        foreach ($this->problem->stepsOf[$job] as $step) {
            $before = $this->problem->startBefore[$step];
            if ($before !== null && $this->starts[$step] >= $before) {
                return true;
            }
        }

        return false;
    }

    /**
     * How bad it is, as one number: what counts first outweighs all that follows. Windows that are missed, devices
     * that are late, by how much, when the last is done, and when they are done on average.
     */
    public function score(): float
    {
        [$missed, $late, $lateBy, $last, $sum] = [[], 0, 0, 0, 0];
        foreach ($this->problem->timed as $step) {
            if ($this->starts[$step] >= $this->problem->startBefore[$step]) {
                $missed[$this->problem->jobs[$step]] = true;
            }
        }
        for ($job = 0; $job < $this->problem->devices; $job++) {
            $finish = $this->finishOf($job);
            $over = $this->problem->deadline === null ? 0 : max(0, $finish - $this->problem->deadline);
            $late += $over > 0 ? 1 : 0;
            $lateBy += $over;
            $last = max($last, $finish);
            $sum += $finish;
        }

        return count($missed) * 1e13 + $late * 1e10 + $lateBy + $last + $sum / max(1, $this->problem->devices) / 1e3;
    }
}
