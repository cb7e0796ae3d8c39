<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Version\Version;

/** What the bench can do: rates in bytes a second, its host agent, and its free disk in bytes. */
final readonly class Bench
{
    public function __construct(
        public float $linkBytesPerSecond,
        public float $backupBytesPerSecond,
        public float $returnBytesPerSecond,
        public ?Version $hostAgent,
        public int $freeDiskBytes,
    ) {
    }
}
