<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** A batch, what of it cannot be scheduled, and how it is to be looked into. */
final readonly class Asked
{
    /**
     * @param  list<Unplanned>  $unplanned
     * @param  int<1, max>  $draws
     */
    public function __construct(
        public Batch $batch,
        public array $unplanned,
        public int $seed,
        public int $draws,
        public ?OrderBefore $before = null,
    ) {
    }
}
