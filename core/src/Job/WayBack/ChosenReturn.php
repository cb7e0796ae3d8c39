<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

/** A way back that somebody chose instead of the route's, with its own promise. */
final readonly class ChosenReturn
{
    public function __construct(
        public WayBack $way,
        public Promise $promise,
        public string $by,
        public \DateTimeImmutable $at,
    ) {
    }
}
