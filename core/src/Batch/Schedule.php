<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Batch\Internal\Placement;
use JadeStep\Core\Batch\Internal\Problem;

/** Who is plugged in when, and where hands are needed, if everything takes as long as expected. */
final readonly class Schedule
{
    /**
     * @param  list<PlacedStep>  $steps  in the order of their starts
     * @param  list<DeviceTimes>  $devices  in the order of the batch
     * @param  PriorityRule|null  $rule  that it was begun with; null: with the order of the schedule before
     * @param  bool  $cutShort  whether time ran out before all was tried
     */
    private function __construct(
        public Batch $batch,
        public array $steps,
        public array $devices,
        public ?PriorityRule $rule,
        public bool $cutShort,
    ) {
    }

    public static function of(Problem $problem, Placement $placed, ?PriorityRule $rule, bool $cutShort): self
    {
        $devices = [];
        for ($job = 0; $job < $problem->devices; $job++) {
            $devices[] = self::times($problem, $placed, $job);
        }

        return new self($problem->batch, self::placed($problem, $placed), $devices, $rule, $cutShort);
    }

    /** @return list<PlacedStep> */
    private static function placed(Problem $problem, Placement $placed): array
    {
        $order = array_keys($placed->starts);
        usort($order, static fn (int $a, int $b): int => [$placed->starts[$a], $placed->ends[$a]]
            <=> [$placed->starts[$b], $placed->ends[$b]]);
        $batch = $problem->batch;

        return array_map(static function (int $step) use ($problem, $placed, $batch): PlacedStep {
            $job = $problem->jobs[$step];
            $isDevice = $job < $problem->devices;

            return new PlacedStep(
                $isDevice ? $job : null,
                $isDevice ? $step - $problem->stepsOf[$job][0] : $problem->fetches[$job - $problem->devices],
                $batch->after($placed->starts[$step]),
                $batch->after($placed->ends[$step]),
                $placed->units[$step],
                $placed->ports[$job] ?? null,
            );
        }, $order);
    }

    private static function times(Problem $problem, Placement $placed, int $job): DeviceTimes
    {
        $steps = $problem->stepsOf[$job];
        $starts = array_map(static fn (int $step): int => $placed->starts[$step], $steps);
        $finish = $placed->finishOf($job);

        return new DeviceTimes(
            $placed->ports[$job] ?? null,
            $problem->batch->after($starts === [] ? 0 : min($starts)),
            $problem->batch->after($finish),
            self::lateness($problem, $placed, $job, $finish),
        );
    }

    private static function lateness(Problem $problem, Placement $placed, int $job, int $finish): ?Lateness
    {
        $over = $problem->deadline === null ? 0 : $finish - $problem->deadline;
        $isMissed = $placed->missesWindow($job);
        if ($over <= 0 && ! $isMissed) {
            return null;
        }
        [$for, $waits] = self::waits($problem, $placed, $job, $isMissed ? null : $over);
        $missed = array_values(array_filter(
            $problem->stepsOf[$job],
            static fn (int $s): bool => $problem->startBefore[$s] !== null
                && $placed->starts[$s] >= $problem->startBefore[$s],
        ));

        return $isMissed
            ? Lateness::afterWindow($problem->batch->after((int) $problem->startBefore[$missed[0]]), $for, $waits)
            : Lateness::afterDeadline($over / 60, $for, $waits);
    }

    /**
     * What a device waits for the longest; nothing where it would be late without any waiting.
     *
     * @return array{Waiting|null, float} with the minutes
     */
    private static function waits(Problem $problem, Placement $placed, int $job, ?int $over): array
    {
        $waits = [];
        foreach ($problem->stepsOf[$job] as $step) {
            [$for, $seconds] = $placed->waits[$step] ?? [null, 0];
            if ($for === Waiting::ForMoment) {
                $seconds = $problem->notBefore[$step];
            }
            if ($for !== null) {
                $waits[$for->value] = ($waits[$for->value] ?? 0) + $seconds;
            }
        }
        arsort($waits);
        $most = array_key_first($waits);

        return $most === null || ($over !== null && array_sum($waits) < $over)
            ? [null, 0.0]
            : [Waiting::from($most), $waits[$most] / 60];
    }

    /** When the last device is expected to be done. */
    public function finishesAt(): \DateTimeImmutable
    {
        $ends = array_map(static fn (DeviceTimes $d): \DateTimeImmutable => $d->finishesAt, $this->devices);

        return $ends === [] ? $this->batch->startsAt : max($ends);
    }

    /** @return list<int> the places of those that are not in time */
    public function late(): array
    {
        return array_keys(array_filter($this->devices, static fn (DeviceTimes $d): bool => $d->late !== null));
    }

    /** @return list<PlacedStep> what one technician does, in its order */
    public function orderOf(int $technician): array
    {
        return array_values(array_filter(
            $this->steps,
            static fn (PlacedStep $s): bool => $s->technician() === $technician,
        ));
    }

    /** What a placed step stands for; null for the fetch of a package. */
    public function stepOf(PlacedStep $placed): ?BatchStep
    {
        return $placed->device === null ? null : $this->batch->devices[$placed->device]->steps[$placed->step];
    }
}
