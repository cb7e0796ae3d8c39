<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** A span of time, until its end (exclusive), and what a bag holds that was last changed in it. */
final readonly class TideSpan
{
    public function __construct(
        public \DateTimeImmutable $from,
        public \DateTimeImmutable $until,
        public int $items,
        public int $bytes,
    ) {
    }
}
