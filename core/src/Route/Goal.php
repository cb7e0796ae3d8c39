<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Channel;
use JadeStep\Core\Version\Version;

/** What the technician asked for: one of four forms. */
final readonly class Goal
{
    private function __construct(
        public ?Version $exact,
        public ?int $newestInMajor,
        public ?Version $newestBelow,
        public ?\DateTimeImmutable $newestBefore,
    ) {
    }

    public static function exact(Version $version): self
    {
        return new self($version, null, null, null);
    }

    public static function newestInMajor(int $major): self
    {
        return new self(null, $major, null, null);
    }

    public static function newestBelow(Version $version): self
    {
        return new self(null, null, $version, null);
    }

    public static function newestBefore(\DateTimeImmutable $moment): self
    {
        return new self(null, null, null, $moment);
    }

    /** A beta is the end of a route only where it is named exactly. */
    public function admits(Build $build): bool
    {
        return match (true) {
            $this->exact !== null => $build->version->equals($this->exact),
            $build->channel === Channel::Beta => false,
            $this->newestInMajor !== null => $build->version->major === $this->newestInMajor,
            $this->newestBelow !== null => $build->version->isBelow($this->newestBelow),
            $this->newestBefore !== null => $build->releasedAt < $this->newestBefore,
            default => false,
        };
    }

    /** Candidates are the end only where no release is reachable; an exact goal takes what it names. */
    public function prefersReleases(): bool
    {
        return $this->exact === null;
    }

    /** Whether a build that is not admitted lies above what was asked for. */
    public function isBelow(Build $build): bool
    {
        return match (true) {
            $this->exact !== null => $build->version->isAbove($this->exact),
            $this->newestInMajor !== null => $build->version->major > $this->newestInMajor,
            $this->newestBelow !== null => ! $build->version->isBelow($this->newestBelow),
            $this->newestBefore !== null => $build->releasedAt >= $this->newestBefore,
            default => false,
        };
    }
}
