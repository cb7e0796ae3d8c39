<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Version\Version;

/** One install in a route. */
final readonly class Leg
{
    /** @param  \DateTimeImmutable|null  $windowEnds the known end of the signing window that the leg uses */
    public function __construct(
        public Move $move,
        public Version $fromVersion,
        public string $fromBuild,
        public Build $to,
        public Package $package,
        public Minutes $before,
        public ?\DateTimeImmutable $windowEnds,
    ) {
    }

    /** The latest start that still meets the window: its end less expected time plus two deviations. */
    public function latestStart(): ?\DateTimeImmutable
    {
        $seconds = (int) ceil($this->before->cautious() * 60);

        return $this->windowEnds?->modify("-{$seconds} seconds");
    }
}
