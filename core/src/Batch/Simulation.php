<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Batch\Internal\Network;
use JadeStep\Core\Batch\Internal\PertDraws;
use JadeStep\Core\Batch\Internal\Placement;
use JadeStep\Core\Batch\Internal\Problem;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/**
 * Plays a schedule through many times, each time with other durations drawn from the three-point times, in the order
 * that the schedule has. Durations are drawn independently of each other.
 */
final class Simulation
{
    public const USUAL_DRAWS = 2_000;

    /** For a look at what would be if. */
    public const FEW_DRAWS = 500;

    /** @param  int<1, max>  $draws */
    public static function play(Schedule $schedule, int $seed, int $draws = self::USUAL_DRAWS): Outlook
    {
        $problem = new Problem($schedule->batch);
        $finishes = array_fill(0, $problem->devices, []);
        $made = array_fill(0, $problem->devices, 0);
        $allMade = 0;
        foreach (self::draws($problem, $schedule, $seed, $draws) as [$starts, $ends]) {
            $isInTime = self::note($problem, $starts, $ends, $finishes);
            $allMade += in_array(false, $isInTime, true) ? 0 : 1;
            foreach ($isInTime as $device => $is) {
                $made[$device] += $is ? 1 : 0;
            }
        }

        return Outlook::of($schedule->batch, $draws, $finishes, $made, $allMade);
    }

    /**
     * When the last device is done, with other times than those that a schedule was made with, in its order.
     *
     * @param  Batch  $timed  the schedule's devices and steps, with those times
     * @param  int<1, max>  $draws
     * @return list<float> seconds from the schedule's start, one a draw
     */
    public static function finishes(Schedule $schedule, Batch $timed, int $seed, int $draws = self::FEW_DRAWS): array
    {
        $finishes = [];
        foreach (self::draws(new Problem($timed), $schedule, $seed, $draws) as [, $ends]) {
            $finishes[] = max([0.0, ...$ends]);
        }

        return $finishes;
    }

    /** @return \Generator<array{array<int, float>, array<int, float>}> by step, when each begins and when it ends */
    private static function draws(Problem $problem, Schedule $schedule, int $seed, int $draws): \Generator
    {
        $network = new Network($problem, self::placement($problem, $schedule));
        $durations = self::durations($problem);
        $chance = new Randomizer(new Xoshiro256StarStar($seed));
        for ($draw = 0; $draw < $draws; $draw++) {
            yield $network->times(self::drawn($durations, $chance));
        }
    }

    /**
     * @param  array<int, float>  $starts
     * @param  array<int, float>  $ends
     * @param  array<int, list<float>>  $finishes  by device, gets its finish in seconds
     * @return array<int, bool> by device, whether it made it in time
     */
    private static function note(Problem $problem, array $starts, array $ends, array &$finishes): array
    {
        $isInTime = array_fill(0, $problem->devices, true);
        foreach ($problem->timed as $step) {
            if ($starts[$step] >= $problem->startBefore[$step]) {
                $isInTime[$problem->jobs[$step]] = false;
            }
        }
        for ($job = 0; $job < $problem->devices; $job++) {
            $finish = 0.0;
            foreach ($problem->lastOf[$job] as $step) {
                $finish = max($finish, $ends[$step]);
            }
            $finishes[$job][] = $finish;
            $isInTime[$job] = $isInTime[$job] && ($problem->deadline === null || $finish <= $problem->deadline);
        }

        return $isInTime;
    }

    /**
     * @param  array<int, list<float>>  $durations
     * @return array<int, float>
     */
    private static function drawn(array $durations, Randomizer $chance): array
    {
        $numbers = (array) unpack('V*', $chance->getBytes(4 * max(1, count($durations))));
        $drawn = [];
        foreach ($durations as $step => $points) {
            $drawn[$step] = isset($points[1]) ? $points[$numbers[$step + 1] & (PertDraws::POINTS - 1)] : $points[0];
        }

        return $drawn;
    }

    /** @return array<int, list<float>> by step, durations in seconds that are equally likely */
    private static function durations(Problem $problem): array
    {
        $durations = [];
        foreach ($problem->steps as $step => $stands) {
            $minutes = $stands->minutes
                ?? $problem->batch->fetches[$problem->fetches[$problem->jobs[$step] - $problem->devices]]->minutes;
            $durations[$step] = PertDraws::seconds($minutes);
        }

        return $durations;
    }

    private static function placement(Problem $problem, Schedule $schedule): Placement
    {
        $placed = new Placement($problem);
        $fetches = array_flip($problem->fetches);
        foreach ($schedule->steps as $one) {
            $job = $one->device ?? $problem->devices + $fetches[$one->step];
            $step = $problem->stepsOf[$job][$one->device === null ? 0 : $one->step];
            $start = (int) round($schedule->batch->seconds($one->startsAt));
            $placed->add($step, $start, $start + $problem->durations[$step], $one->units, 0, null);
            if ($one->port !== null) {
                $placed->ports[$job] = $one->port;
            }
        }

        return $placed;
    }
}
