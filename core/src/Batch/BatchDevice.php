<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Copied;
use JadeStep\Core\Job\Need;

/** One device of a batch, with the steps that are left of its way. */
final readonly class BatchDevice
{
    /**
     * @param  list<BatchStep>  $steps  none before one that it comes after
     * @param  string|null  $route  which way it takes; null where it has no choice
     * @param  int|null  $onPort  which port it is plugged in at, from 0; null where it is not yet
     * @param  list<OtherWay>  $others  that it could take
     * @param  int  $backupBytes  that its backup may still need on the disk at most
     */
    public function __construct(
        public string $id,
        public string $label,
        public array $steps,
        public ?string $route = null,
        public ?int $onPort = null,
        public array $others = [],
        public int $backupBytes = 0,
    ) {
    }

    public function needsPort(): bool
    {
        return array_filter($this->steps, static fn (BatchStep $s): bool => $s->needs(Need::Port)) !== [];
    }

    public function onWay(OtherWay $way): self
    {
        return Copied::with($this, steps: $way->steps, route: $way->route, others: []);
    }
}
