<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** When one device of a schedule has its turn. */
final readonly class DeviceTimes
{
    /**
     * @param  int|null  $port  from 0; null where it needs none
     * @param  Lateness|null  $late  null where it is in time
     */
    public function __construct(
        public ?int $port,
        public \DateTimeImmutable $startsAt,
        public \DateTimeImmutable $finishesAt,
        public ?Lateness $late,
    ) {
    }
}
