<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Almanac\SigningWindow;
use JadeStep\Core\Version\Version;

/** One install while routes are searched for, with all that the vendor says of the build. */
final readonly class PlannedLeg
{
    /** @param  SigningWindow|null  $window that its permit is asked for in; null where that is not looked up yet */
    public function __construct(
        public Move $move,
        public Version $fromVersion,
        public string $fromBuild,
        public Build $to,
        public Package $package,
        public ?SigningWindow $window = null,
    ) {
    }

    public function in(SigningWindow $window): self
    {
        return new self($this->move, $this->fromVersion, $this->fromBuild, $this->to, $this->package, $window);
    }

    /** @param  Minutes  $before  until its permit is asked for */
    public function told(Minutes $before): Leg
    {
        return new Leg(
            $this->move, $this->fromVersion, $this->fromBuild, $this->to->name(), $this->package->name(),
            $before->expected, $this->window?->until,
        );
    }
}
