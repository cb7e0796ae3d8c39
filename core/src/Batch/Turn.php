<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** One thing that a technician does, as it is expected. */
final readonly class Turn
{
    /**
     * @param  string  $uid  the same whenever the schedule is made again
     * @param  string  $where  the port; empty where it needs none
     */
    public function __construct(
        public string $uid,
        public string $what,
        public string $where,
        public \DateTimeImmutable $from,
        public \DateTimeImmutable $until,
    ) {
    }
}
