<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

use JadeStep\Core\Route\BuildName;
use JadeStep\Core\Version\Version;
use JadeStep\Core\Version\VersionRange;

/** One build of an OS line, with the vendor's rules for installing it. */
final readonly class Build
{
    /** @var array<string, Package> so that one model's package is found however many others there are */
    private array $byHardwareId;

    /**
     * @param  array<string, int>  $storeSchemas  per kind the schema that the build writes, also the highest it reads
     * @param  list<Package>  $packages
     */
    public function __construct(
        public string $osLine,
        public Version $version,
        public string $build,
        public Channel $channel,
        public \DateTimeImmutable $releasedAt,
        public int $rollbackIndex,
        public int $radioLevel,
        public ?Version $hostAgentMinimum,
        public bool $eraseInstall,
        public ?VersionRange $inPlaceFrom,
        public ?VersionRange $stepDownFrom,
        public array $storeSchemas,
        public array $packages,
    ) {
        $byHardwareId = [];
        foreach ($packages as $package) {
            foreach ($package->hardwareIds as $hardwareId) {
                $byHardwareId[$hardwareId] ??= $package;
            }
        }
        $this->byHardwareId = $byHardwareId;
    }

    public function name(): BuildName
    {
        return new BuildName($this->version, $this->build, $this->channel);
    }

    public function packageFor(string $hardwareId): ?Package
    {
        return $this->byHardwareId[$hardwareId] ?? null;
    }

    /**
     * Whether it opens a store of a kind: one that is written in no newer schema than it reads, or where no limit is
     * known.
     */
    public function opens(string $kind, ?int $writtenIn): bool
    {
        $reads = $this->storeSchemas[$kind] ?? null;

        return $writtenIn === null || $reads === null || $writtenIn <= $reads;
    }

    /** By version; a re-release of the same version counts as higher by its later release date. */
    public function compare(self $other): int
    {
        $byVersion = $this->version->compare($other->version);

        return $byVersion === 0 ? $this->releasedAt <=> $other->releasedAt : $byVersion;
    }

    /** The highest first; of equal ones by their label, so that the order is always the same. */
    public function compareForList(self $other): int
    {
        $highest = $other->compare($this);

        return $highest === 0 ? strcmp($this->build, $other->build) : $highest;
    }

    public function is(Version $version, string $build): bool
    {
        return $this->build === $build && $this->version->equals($version);
    }
}
