<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch\Internal;

/**
 * A schedule as what waits for what: every step for those before it on its way, on its port and on the units that it
 * uses, in the schedule's order. With other durations than the expected ones it says when everything happens then.
 */
final class Network
{
    /** @var list<int> the steps, none before one that it waits for */
    public readonly array $order;

    /** @var array<int, list<int>> by step, what it waits for */
    private array $waitsFor = [];

    /** @var array<int, bool> by step, whether it keeps to working hours */
    private array $byHours = [];

    private readonly Hours $hours;

    public function __construct(private readonly Problem $problem, Placement $placed)
    {
        $places = array_flip(array_keys($placed->starts));
        $order = array_keys($placed->starts);
        usort($order, static fn (int $a, int $b): int => [$placed->starts[$a], $places[$a]]
            <=> [$placed->starts[$b], $places[$b]]);
        $this->order = $order;
        $this->hours = new Hours($problem->spans);
        $this->link($placed);
    }

    private function link(Placement $placed): void
    {
        $last = [];
        $onPort = [];
        foreach ($this->order as $step) {
            $waits = $this->problem->after[$step];
            foreach ($placed->units[$step] as $name => $unit) {
                $waits = isset($last[$name][$unit]) ? [...$waits, $last[$name][$unit]] : $waits;
                $last[$name][$unit] = $step;
            }
            $job = $this->problem->jobs[$step];
            $port = $placed->ports[$job] ?? null;
            if ($port !== null && ($onPort[$port] ?? $job) !== $job) {
                array_push($waits, ...$this->problem->lastOf[$onPort[$port]]);
            }
            if ($port !== null) {
                $onPort[$port] = $job;
            }
            $this->waitsFor[$step] = array_values(array_unique($waits));
            $this->byHours[$step] = $this->problem->byHand[$step]
                && $this->problem->spans !== []
                && ! $this->problem->runs[$step];
        }
    }

    /**
     * @param  array<int, float>  $seconds  by step
     * @return array{array<int, float>, array<int, float>} by step, when each begins and when it ends
     */
    public function times(array $seconds): array
    {
        $problem = $this->problem;
        [$waitsFor, $notBefore, $byHours] = [$this->waitsFor, $problem->notBefore, $this->byHours];
        [$starts, $ends] = [[], []];
        foreach ($this->order as $step) {
            $start = $notBefore[$step];
            foreach ($waitsFor[$step] as $before) {
                $end = $ends[$before];
                if ($end > $start) {
                    $start = $end;
                }
            }
            if ($byHours[$step]) {
                $whole = (int) ceil($start);
                $fit = $this->hours->firstFit($whole, $problem->durations[$step]);
                $start = $fit === $whole ? $start : $fit;
            }
            $starts[$step] = $start;
            $ends[$step] = $start + $seconds[$step];
        }

        return [$starts, $ends];
    }
}
