<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Copied;

/** Devices that are to be done by a deadline, in one workshop. */
final readonly class Batch
{
    /**
     * @param  \DateTimeImmutable  $startsAt  from when on there is work at it
     * @param  list<BatchDevice>  $devices
     * @param  list<PackageFetch>  $fetches  of the packages that are not here yet, also of those that nobody needs on
     *   the way that it takes
     * @param  int|null  $freeDiskBytes  free where backups and packages go to; null where that is not known
     */
    public function __construct(
        public \DateTimeImmutable $startsAt,
        public ?\DateTimeImmutable $deadline,
        public Workshop $workshop,
        public array $devices,
        public array $fetches = [],
        public ?int $freeDiskBytes = null,
    ) {
    }

    /** Whether a deadline leaves any time at all. */
    public static function isInOrder(\DateTimeImmutable $startsAt, ?\DateTimeImmutable $deadline): bool
    {
        return $deadline === null || $deadline > $startsAt;
    }

    /** @return array<int, PackageFetch> those that some device needs, by their place */
    public function neededFetches(): array
    {
        $needed = [];
        foreach ($this->devices as $device) {
            foreach ($device->steps as $step) {
                $needed += array_flip($step->fetches);
            }
        }

        return array_filter($this->fetches, static fn (PackageFetch $p): bool => isset($needed[$p->name]));
    }

    public function in(Workshop $workshop): self
    {
        return Copied::with($this, workshop: $workshop);
    }

    public function startingAt(\DateTimeImmutable $startsAt): self
    {
        return Copied::with($this, startsAt: $startsAt);
    }

    /** @param  list<BatchDevice>  $devices */
    public function withDevices(array $devices): self
    {
        return Copied::with($this, devices: $devices);
    }

    /** @return float seconds from the start */
    public function seconds(\DateTimeImmutable $moment): float
    {
        return (float) $moment->format('U.u') - (float) $this->startsAt->format('U.u');
    }

    public function after(float $seconds): \DateTimeImmutable
    {
        $microseconds = (int) round($seconds * 1_000_000);

        return $this->startsAt->modify(($microseconds < 0 ? '' : '+')."{$microseconds} microseconds");
    }
}
