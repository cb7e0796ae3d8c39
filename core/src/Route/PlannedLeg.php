<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Version\Version;

/** One install while routes are searched for, with all that the vendor says of the build. */
final readonly class PlannedLeg
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

        return $this->windowEnds?->sub(new \DateInterval("PT{$seconds}S"));
    }

    public function told(): Leg
    {
        return new Leg(
            $this->move, $this->fromVersion, $this->fromBuild, $this->to->name(), $this->package->name(),
            $this->before->expected, $this->windowEnds,
        );
    }
}
