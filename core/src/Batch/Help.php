<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** One thing that could be changed, and what it brings. */
final readonly class Help
{
    /**
     * @param  string  $words  what it is
     * @param  float  $chance  that all make it then, 0 to 1
     * @param  float  $gain  by how much the chance is higher than now; may be below 0
     * @param  float  $minutes  by how much the last device is done earlier in the middle of all cases; may be below 0
     * @param  int  $late  devices that are expected to be late then
     * @param  list<string>  $devices  the ids of those that it is about; none: all
     */
    public function __construct(
        public HelpKind $kind,
        public string $words,
        public float $chance,
        public float $gain,
        public float $minutes,
        public int $late,
        public array $devices,
    ) {
    }
}
