<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

use JadeStep\Core\Copied;
use JadeStep\Core\Route\BuildName;
use JadeStep\Core\Version\Version;
use JadeStep\Core\Version\VersionRange;

/** One build of an OS line, with the vendor's rules for installing it. */
final readonly class Build
{
    /** @var array<string, list<Package>> so that a model's packages are found however many others there are */
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
                $byHardwareId[$hardwareId][] = $package;
            }
        }
        $this->byHardwareId = $byHardwareId;
    }

    public function name(): BuildName
    {
        return new BuildName($this->version, $this->build, $this->channel);
    }

    /** @return list<Package> every package for a model, in the order in which they are told */
    public function packagesFor(string $hardwareId): array
    {
        return $this->byHardwareId[$hardwareId] ?? [];
    }

    /**
     * The packages for a model that the almanac can speak of: where any catalogue that carries one is fresh, those of
     * the fresh ones.
     *
     * @return list<Package>
     */
    public function knownPackagesFor(string $hardwareId, \DateTimeImmutable $now): array
    {
        $all = $this->packagesFor($hardwareId);
        $fresh = array_values(array_filter($all, static fn (Package $p): bool => ! $p->isStaleAt($now)));

        return $fresh === [] ? $all : $fresh;
    }

    /** Whether no catalogue that carries a package for the model is fresh; without a package for it, none at all. */
    public function isStaleFor(?string $hardwareId, \DateTimeImmutable $now): bool
    {
        $own = $hardwareId === null ? [] : $this->packagesFor($hardwareId);
        $packages = $own === [] ? $this->packages : $own;

        return $packages !== []
            && array_filter($packages, static fn (Package $p): bool => ! $p->isStaleAt($now)) === [];
    }

    /**
     * Of the packages for a model that are signed at a moment the one whose window ends last; null where none is, or
     * where what is signed is not known.
     */
    public function signedAt(string $hardwareId, \DateTimeImmutable $moment): ?Package
    {
        $best = null;
        $longest = null;
        foreach ($this->packagesFor($hardwareId) as $package) {
            $window = $package->isStaleAt($moment) ? null : $package->windowAt($moment);
            if ($window !== null && ($longest === null || $window->endsAfter($longest))) {
                [$best, $longest] = [$package, $window];
            }
        }

        return $best;
    }

    /** The package that is spoken of: the one that is signed, else the first. */
    public function packageFor(string $hardwareId, \DateTimeImmutable $now): ?Package
    {
        return $this->signedAt($hardwareId, $now) ?? $this->knownPackagesFor($hardwareId, $now)[0] ?? null;
    }

    /** @param  list<Package>  $more  that another catalogue carries for the same build */
    public function withPackages(array $more): self
    {
        return Copied::with($this, packages: [...$this->packages, ...$more]);
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
