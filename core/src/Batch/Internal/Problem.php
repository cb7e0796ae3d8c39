<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch\Internal;

use JadeStep\Core\Batch\Batch;
use JadeStep\Core\Batch\BatchStep;
use JadeStep\Core\Job\Need;

/**
 * A batch as numbers: every step has a place in lists, times are whole seconds from the batch's start. The fetches of
 * packages come after the devices, each as a job of one step.
 */
final class Problem
{
    /** @var list<int> whole seconds that each step is expected to take */
    public array $durations = [];

    /** @var list<int> the job that each step is of */
    public array $jobs = [];

    /** @var list<list<int>> the steps that each comes after */
    public array $after = [];

    /** @var list<list<int>> the steps that come after each */
    public array $next = [];

    /** @var list<list<string>> what each needs, without ports */
    public array $needs = [];

    /** @var list<bool> whether each needs hands */
    public array $byHand = [];

    /** @var list<int> */
    public array $notBefore = [];

    /** @var list<int|null> */
    public array $startBefore = [];

    /** @var list<bool> */
    public array $runs = [];

    /** @var list<BatchStep|null> what each stands for; null for the fetch of a package */
    public array $steps = [];

    /** @var list<list<int>> the steps of each job */
    public array $stepsOf = [];

    /** @var list<list<int>> the steps of each job that no other of it comes after */
    public array $lastOf = [];

    /** @var list<int> the steps that have to begin before a moment */
    public array $timed = [];

    /** @var list<bool> whether each job needs a port */
    public array $needsPort = [];

    /** @var list<int|null> the port that each job holds from the beginning */
    public array $onPort = [];

    /** @var list<int> by job after the devices, which of the batch's fetches it is */
    public readonly array $fetches;

    public readonly int $ports;

    public readonly int $devices;

    public readonly ?int $deadline;

    /** @var array<string, int> */
    public readonly array $units;

    /** @var list<array{int, int}> when people work; none where always */
    public readonly array $spans;

    public function __construct(public readonly Batch $batch)
    {
        $this->ports = $batch->workshop->count(Need::Port);
        $this->units = array_diff_key($batch->workshop->units, [Need::Port->value => 0]);
        $this->devices = count($batch->devices);
        $this->deadline = $batch->deadline === null ? null : (int) floor($batch->seconds($batch->deadline));
        $this->spans = $batch->workshop->hours->spansFrom($batch->startsAt);
        $this->fetches = array_keys($batch->neededFetches());
        $fetched = $this->fetchSteps();
        foreach ($batch->devices as $device) {
            $job = count($this->stepsOf);
            $this->stepsOf[] = [];
            $this->needsPort[] = $device->needsPort();
            $this->onPort[] = $device->onPort;
            foreach ($device->steps as $step) {
                $this->addStep($job, $step, $fetched);
            }
        }
        foreach ($this->fetches as $place) {
            $this->addFetch(self::whole($batch->fetches[$place]->minutes->expected * 60));
        }
        $this->linkNext();
    }

    /** @return array<string, int> the place of each fetch's step, by the package's name */
    private function fetchSteps(): array
    {
        $places = [];
        $first = array_sum(array_map(static fn ($d): int => count($d->steps), $this->batch->devices));
        foreach ($this->fetches as $i => $place) {
            $places[$this->batch->fetches[$place]->name] = $first + $i;
        }

        return $places;
    }

    /** @param  array<string, int>  $fetched */
    private function addStep(int $job, BatchStep $step, array $fetched): void
    {
        $own = $this->stepsOf[$job];
        $after = array_map(static fn (int $i): int => $own[$i], $step->after);
        foreach ($step->fetches as $name) {
            array_push($after, ...isset($fetched[$name]) ? [$fetched[$name]] : []);
        }
        $this->add($job, self::whole($step->minutes->expected * 60), $after, $step->needs);
        $wait = $step->notBefore === null ? 0 : (int) ceil($this->batch->seconds($step->notBefore));
        $this->notBefore[] = max(0, $wait);
        $this->startBefore[] = $step->startBefore === null
            ? null
            : (int) floor($this->batch->seconds($step->startBefore));
        $this->runs[] = $step->runs;
        $this->steps[] = $step;
    }

    private function addFetch(int $seconds): void
    {
        $job = count($this->stepsOf);
        $this->stepsOf[] = [];
        $this->needsPort[] = false;
        $this->onPort[] = null;
        $this->add($job, $seconds, [], [Need::Worker->value, Need::Line->value]);
        $this->notBefore[] = 0;
        $this->startBefore[] = null;
        $this->runs[] = false;
        $this->steps[] = null;
    }

    /**
     * @param  list<int>  $after
     * @param  list<string>  $needs
     */
    private function add(int $job, int $seconds, array $after, array $needs): void
    {
        $this->stepsOf[$job][] = count($this->jobs);
        $this->durations[] = $seconds;
        $this->jobs[] = $job;
        $this->after[] = $after;
        $this->needs[] = array_values(array_intersect($needs, array_keys($this->units)));
        $this->byHand[] = in_array(Need::Hands->value, $needs, true);
    }

    private function linkNext(): void
    {
        $next = array_fill(0, max(1, count($this->jobs)), []);
        foreach ($this->after as $step => $before) {
            foreach ($before as $one) {
                $next[$one][] = $step;
            }
        }
        $this->next = $this->jobs === [] ? [] : $next;
        $this->lastOf = array_map(
            fn (array $steps): array => array_values(
                array_filter($steps, fn (int $step): bool => $this->next[$step] === []),
            ),
            $this->stepsOf,
        );
        $this->timed = array_keys(array_filter($this->startBefore, is_int(...)));
    }

    /** What takes no whole second takes one, so that nothing is done at the moment at which it begins. */
    private static function whole(float $seconds): int
    {
        return $seconds <= 0 ? 0 : max(1, (int) round($seconds));
    }
}
