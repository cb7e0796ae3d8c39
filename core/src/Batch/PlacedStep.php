<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Job\Need;

/** When one step of a schedule is expected to run, and where. */
final readonly class PlacedStep
{
    /**
     * @param  int|null  $device  its place in the batch; null for the fetch of a package
     * @param  int  $step  its place among the device's steps, or of the fetch among the fetches
     * @param  array<string, int>  $units  which of what it needs, from 0
     * @param  int|null  $port  where its device is, from 0
     */
    public function __construct(
        public ?int $device,
        public int $step,
        public \DateTimeImmutable $startsAt,
        public \DateTimeImmutable $endsAt,
        public array $units,
        public ?int $port,
    ) {
    }

    /** Which technician does it, from 0; null where it runs alone. */
    public function technician(): ?int
    {
        return $this->units[Need::Hands->value] ?? null;
    }
}
