<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Version\Version;

/** One install in a route. */
final readonly class Leg
{
    /**
     * @param  float  $startsAfterMinutes  expected minutes from the beginning of the work until its permit is asked for
     * @param  \DateTimeImmutable|null  $windowEnds  the known end of the signing window that the leg uses
     */
    public function __construct(
        public Move $move,
        public Version $fromVersion,
        public string $fromBuild,
        public BuildName $to,
        public PackageName $package,
        public float $startsAfterMinutes,
        public ?\DateTimeImmutable $windowEnds,
    ) {
    }
}
