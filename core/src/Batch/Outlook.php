<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** How likely a schedule is to hold, from playing it through. */
final readonly class Outlook
{
    /**
     * @param  float  $chance  that every device makes its windows and the deadline, 0 to 1
     * @param  FinishSpan  $finish  of the last device
     * @param  list<DeviceOutlook>  $devices  in the order of the batch
     */
    private function __construct(
        public int $draws,
        public float $chance,
        public FinishSpan $finish,
        public array $devices,
    ) {
    }

    /**
     * @param  int<1, max>  $draws
     * @param  array<int, list<float>>  $finishes  by device, in seconds from the batch's start
     * @param  array<int, int>  $made  by device, in how many draws it was in time
     * @param  int  $allMade  in how many draws all were
     */
    public static function of(Batch $batch, int $draws, array $finishes, array $made, int $allMade): self
    {
        $devices = array_map(
            static fn (array $own, int $times): DeviceOutlook => new DeviceOutlook(
                FinishSpan::of($batch, $own),
                $times / $draws,
            ),
            $finishes,
            $made,
        );
        $last = $finishes === [] ? array_fill(0, $draws, 0.0) : self::last($finishes);

        return new self($draws, $allMade / $draws, FinishSpan::of($batch, $last), array_values($devices));
    }

    /**
     * @param  array<int, list<float>>  $finishes
     * @return list<float> of each draw the last finish
     */
    private static function last(array $finishes): array
    {
        $last = [];
        foreach ($finishes as $own) {
            foreach ($own as $draw => $finish) {
                $last[$draw] = max($last[$draw] ?? 0.0, $finish);
            }
        }

        return array_values($last);
    }
}
