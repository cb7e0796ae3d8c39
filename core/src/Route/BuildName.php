<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Channel;
use JadeStep\Core\Version\Version;

/** Which build is meant, without the vendor's rules for it: what a plan says of a build. */
final readonly class BuildName
{
    public function __construct(public Version $version, public string $build, public Channel $channel)
    {
    }

    /** "8.7 (8G210)" */
    public function label(): string
    {
        return "{$this->version->label()} ({$this->build})";
    }

    public function equals(self $other): bool
    {
        return $this->build === $other->build && $this->version->equals($other->version);
    }
}
