<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Package;

/**
 * How long the steps of a route take. A route is: pair and read, back up and verify, then for each leg fetch, enter
 * recovery mode, install, restart and activate; and where it erased and puts data back, the return and its restarts.
 * Defaults are common practice, no source; what moves bytes goes at the bench's rates, and an install takes what it
 * has taken here, as soon as there are enough measurements.
 */
final readonly class Timetable
{
    private const VERIFY_BYTES_PER_SECOND = 200_000_000;

    private Minutes $recovery;

    private Minutes $install;

    private Minutes $restart;

    public function __construct(private Situation $situation)
    {
        $this->recovery = Minutes::of(1, 2, 5);
        $this->install = $situation->bench->installMinutes?->asMinutes() ?? Minutes::of(8, 10, 15);
        $this->restart = Minutes::of(4, 6, 12);
    }

    /** Before the first leg. */
    public function safeguard(): Minutes
    {
        $bytes = $this->situation->plannedBackup === PlannedBackup::None ? 0 : $this->situation->device->contentBytes();

        return Minutes::sum(
            Minutes::of(1, 2, 4),
            $this->situation->bench->backup->minutesFor($bytes),
            Rate::usual(self::VERIFY_BYTES_PER_SECOND)->minutesFor($bytes),
        );
    }

    /** From the end of what came before until a leg's permit is asked for. */
    public function untilPermit(Package $package): Minutes
    {
        return Minutes::sum($this->situation->bench->link->minutesFor($package->bytes), $this->recovery);
    }

    /** From the permit until the device runs the leg's build. */
    public function afterPermit(): Minutes
    {
        return Minutes::sum($this->install, $this->restart);
    }

    /** @param  int  $bytes what the base holds */
    public function putBack(int $bytes): Minutes
    {
        return Minutes::sum($this->situation->bench->return->minutesFor($bytes), Minutes::of(3, 5, 10));
    }

    /**
     * What a route's minutes are made of.
     *
     * @param  list<PlannedLeg>  $legs
     * @param  int|null  $baseBytes  what the base holds; null where nothing is put back
     * @return list<StepEstimate> in their order; the route's minutes are their sum
     */
    public function bySteps(array $legs, ?int $baseBytes): array
    {
        $bytes = $this->situation->plannedBackup === PlannedBackup::None ? 0 : $this->situation->device->contentBytes();
        $step = static fn (string $step, Minutes $minutes, int $leg = 0): StepEstimate => new StepEstimate(
            $step,
            $leg,
            $minutes,
        );
        $fetches = array_map(
            fn (PlannedLeg $l): Minutes => $this->situation->bench->link->minutesFor($l->package->bytes),
            $legs,
        );
        $steps = [
            $step('pair', Minutes::of(1, 2, 4)),
            $step('back-up', $this->situation->bench->backup->minutesFor($bytes)),
            $step('verify-backup', Rate::usual(self::VERIFY_BYTES_PER_SECOND)->minutesFor($bytes)),
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
                $step('put-back', $this->situation->bench->return->minutesFor($baseBytes)),
                $step('set-up', Minutes::of(3, 5, 10)),
            ];
    }
}
