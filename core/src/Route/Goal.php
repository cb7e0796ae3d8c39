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

    /**
     * Whether what is installed is what was asked for.
     *
     * @param  Build|null  $installed  as the almanac knows it; null where no catalogue names it
     */
    public function isMetBy(Version $version, ?Build $installed): bool
    {
        return match (true) {
            $installed !== null => $this->admits($installed),
            $this->exact !== null => $version->equals($this->exact),
            $this->newestInMajor !== null => $version->major === $this->newestInMajor,
            $this->newestBelow !== null => $version->isBelow($this->newestBelow),
            default => false,
        };
    }

    /**
     * Whether what was asked for lies below what is installed. A moment lies below, since what came before it is asked
     * for, unless what is installed came before it too.
     */
    public function liesBelow(Version $version, ?Build $installed): bool
    {
        return match (true) {
            $this->exact !== null => $version->isAbove($this->exact),
            $this->newestInMajor !== null => $version->major > $this->newestInMajor,
            $this->newestBelow !== null => ! $version->isBelow($this->newestBelow),
            default => $installed === null || $this->isBelow($installed),
        };
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
