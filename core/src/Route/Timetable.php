<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Package;

/**
 * How long the steps of a route take. A route is: pair and read, back up and verify, fetch the packages of all legs;
 * then for each leg enter recovery mode, ask for the permit, install, restart and activate; and where it erased and
 * puts data back, the return and its restarts. Defaults are common practice, no source; what moves bytes goes at the
 * bench's rates, and an install takes what it has taken here, as soon as there are enough measurements.
 */
final readonly class Timetable
{
    /** A cloud return takes no less and no more than this, in minutes (common practice, no source). */
    private const CLOUD_LEAST = 5.0;

    private const CLOUD_MOST = 120.0;

    private const VERIFY_BYTES_PER_SECOND = 200_000_000;

    private Minutes $pair;

    private Minutes $recovery;

    private Minutes $install;

    private Minutes $restart;

    /** Expected minutes before anything is fetched. */
    private float $safeguard;

    public function __construct(private Situation $situation)
    {
        $this->pair = Minutes::of(1, 2, 4);
        $this->recovery = Minutes::of(1, 2, 5);
        $this->install = $situation->bench->installMinutes?->asMinutes() ?? Minutes::of(8, 10, 15);
        $this->restart = Minutes::of(4, 6, 12);
        $this->safeguard = Minutes::sum($this->pair, $this->backUp(), $this->verify())->expected;
    }

    /** Expected minutes to fetch a package. */
    public function fetch(Package $package): float
    {
        return $this->fetching($package)->expected;
    }

    /**
     * Expected minutes from the beginning of the work until a leg's permit is asked for.
     *
     * @param  int  $leg  from 0
     * @param  float  $fetching  expected minutes to fetch the packages of all legs
     */
    public function untilPermit(int $leg, float $fetching): float
    {
        $eachLeg = $this->recovery->expected + $this->install->expected + $this->restart->expected;

        return $this->safeguard + $fetching + $leg * $eachLeg + $this->recovery->expected;
    }

    /**
     * From the beginning of the work until each leg's permit is asked for.
     *
     * @param  list<PlannedLeg>  $legs
     * @return list<Minutes>
     */
    public function untilPermits(array $legs): array
    {
        $fetches = array_map(fn (PlannedLeg $l): Minutes => $this->fetching($l->package), $legs);
        $steps = [$this->pair, $this->backUp(), $this->verify(), ...$fetches];
        $until = [];
        foreach (array_keys($legs) as $i) {
            array_push($steps, ...$i === 0 ? [] : [$this->install, $this->restart], ...[$this->recovery]);
            $until[] = Minutes::sum(...$steps);
        }

        return $until;
    }

    /**
     * The latest start that still meets every window whose end is known: its end less the expected time and two
     * deviations until the permit is asked for.
     *
     * @param  list<PlannedLeg>  $legs
     */
    public function latestStart(array $legs): ?\DateTimeImmutable
    {
        $latest = null;
        foreach ($this->untilPermits($legs) as $i => $before) {
            $seconds = (int) ceil(min($before->cautious(), Situation::MOST_MINUTES) * 60);
            $start = $legs[$i]->window?->until?->sub(new \DateInterval("PT{$seconds}S"));
            $latest = $start !== null && ($latest === null || $start < $latest) ? $start : $latest;
        }

        return $latest;
    }

    /** What is copied before the erase: what the planned backup carries of what is on the device. */
    private function backUp(): Minutes
    {
        return $this->situation->bench->backup->minutesFor($this->situation->bytesToBackUp());
    }

    private function verify(): Minutes
    {
        return Rate::usual(self::VERIFY_BYTES_PER_SECOND)->minutesFor($this->situation->bytesToBackUp());
    }

    private function fetching(Package $package): Minutes
    {
        return $this->situation->bench->link->minutesFor($package->bytes);
    }

    /**
     * What a route's minutes are made of.
     *
     * @param  list<PlannedLeg>  $legs
     * @param  int|null  $baseBytes  what the base holds; null where nothing is put back
     * @param  bool  $fromCloud  whether the device fetches it over the line, and not from here
     * @return list<StepEstimate> in their order; the route's minutes are their sum
     */
    public function bySteps(array $legs, ?int $baseBytes, bool $fromCloud = false): array
    {
        $step = static fn (string $step, Minutes $minutes, int $leg = 0): StepEstimate => new StepEstimate(
            $step,
            $leg,
            $minutes,
        );
        $fetches = array_map(fn (PlannedLeg $l): Minutes => $this->fetching($l->package), $legs);
        $steps = [
            $step('pair', $this->pair),
            $step('back-up', $this->backUp()),
            $step('verify-backup', $this->verify()),
            $step('fetch-package', Minutes::sum(...$fetches)),
        ];
        foreach (array_keys($legs) as $leg) {
            array_push(
                $steps,
                $step('enter-recovery', $this->recovery, $leg),
                $step('install', $this->install, $leg),
                $step('wake', $this->restart, $leg),
            );
        }

        return $baseBytes === null
            ? $steps
            : [
                ...$steps,
                $step(
                    'put-back',
                    $fromCloud
                        ? $this->fromCloud($baseBytes)
                        : $this->situation->bench->return->minutesFor($baseBytes),
                ),
                $step('set-up', Minutes::of(3, 5, 10)),
            ];
    }

    private function fromCloud(int $bytes): Minutes
    {
        $byLine = $this->situation->bench->link->minutesFor($bytes);
        $within = static fn (float $minutes): float => max(self::CLOUD_LEAST, min(self::CLOUD_MOST, $minutes));

        return Minutes::of($within($byLine->low), $within($byLine->likely), $within($byLine->high));
    }
}
