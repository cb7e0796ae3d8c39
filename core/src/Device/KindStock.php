<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

/** How much of one kind the device holds, and how current it is. */
final readonly class KindStock
{
    public function __construct(
        public Kind $kind,
        public int $items,
        public int $bytes,
        public ?\DateTimeImmutable $lastChangedAt,
        public ?\DateTimeImmutable $syncedAt,
    ) {
    }
}
