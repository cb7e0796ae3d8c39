<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Version\Version;

/**
 * What the bench can do: its rates in bytes a second, the minutes of an install, its host agent, its free disk in
 * bytes.
 */
final readonly class BenchFigures
{
    /** @param  Rate|null  $installMinutes  null where the bench has not measured enough of its own */
    public function __construct(
        public Rate $link,
        public Rate $backup,
        public Rate $return,
        public ?Rate $installMinutes,
        public ?Version $hostAgent,
        public int $freeDiskBytes,
    ) {
    }
}
