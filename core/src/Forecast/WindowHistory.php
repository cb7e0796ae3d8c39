<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Catalogue;
use JadeStep\Core\Almanac\Channel;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Almanac\SigningWindow;

/**
 * The windows of an almanac that a later build has taken the place of. A build is superseded for a model by the next
 * one of the same major that has a package for it, and the last of a major by the first of the next; a release by
 * releases only, a candidate by candidates and releases, a beta by any.
 */
final readonly class WindowHistory
{
    /** @param  list<PastWindow>  $windows */
    private function __construct(public array $windows)
    {
    }

    public static function of(Almanac $almanac): self
    {
        $windows = [];
        foreach ($almanac->catalogues as $catalogue) {
            foreach (self::byLine($catalogue) as $builds) {
                array_push($windows, ...self::ofLine($catalogue, $builds));
            }
        }

        return new self($windows);
    }

    /** The window of a package; null where its build is not superseded. */
    public function windowOf(Build $build, Package $package): ?PastWindow
    {
        foreach ($this->windows as $window) {
            if ($window->build->osLine === $build->osLine && $window->isOf($package)
                && $window->build->is($build->version, $build->build)) {
                return $window;
            }
        }

        return null;
    }

    /** @return array<string, PastWindow> by the digest of each of its packages */
    public function byDigest(): array
    {
        $windows = [];
        foreach ($this->windows as $window) {
            foreach ($window->digests as $digest) {
                $windows[$digest] = $window;
            }
        }

        return $windows;
    }

    /** @return array<string, list<Build>> */
    private static function byLine(Catalogue $catalogue): array
    {
        $lines = [];
        foreach ($catalogue->builds as $build) {
            $lines[$build->osLine][] = $build;
        }

        return $lines;
    }

    /**
     * From the highest build down, so that what is above each is known by model and channel.
     *
     * @param  list<Build>  $builds
     * @return list<PastWindow> the highest first
     */
    private static function ofLine(Catalogue $catalogue, array $builds): array
    {
        usort($builds, static fn (Build $a, Build $b): int => $b->compare($a));
        [$windows, $above] = [[], []];
        foreach ($builds as $build) {
            array_push($windows, ...self::ofBuild($catalogue, $build, $above));
            foreach ($build->packages as $package) {
                foreach ($package->hardwareIds as $id) {
                    $above[$id][$build->channel->value] = $build;
                }
            }
        }

        return $windows;
    }

    /**
     * @param  array<string, array<string, Build>>  $above  the next above it, by model and channel
     * @return list<PastWindow>
     */
    private static function ofBuild(Catalogue $catalogue, Build $build, array $above): array
    {
        $together = [];
        foreach ($build->packages as $package) {
            $next = self::nextFor($build, $package, $above);
            // what came out later than what takes its place was superseded from the beginning
            $superseded = $next === null ? null : max($next->releasedAt, $build->releasedAt);
            $last = self::lastWindow($package);
            if ($superseded !== null && $last !== null) {
                $name = $superseded->getTimestamp().' '.($last->until?->getTimestamp() ?? 'open');
                $together[$name][] = [$package, $superseded, $last];
            }
        }

        return array_map(
            static fn (array $group): PastWindow => new PastWindow(
                $catalogue->vendorId,
                $catalogue->vendorName,
                $build,
                array_map(static fn (array $one): string => $one[0]->sha256, $group),
                $group[0][1],
                $group[0][2]->until,
                $group[0][2]->announced,
                $catalogue->freshUntil,
            ),
            array_values($together),
        );
    }

    private static function lastWindow(Package $package): ?SigningWindow
    {
        return $package->windows[count($package->windows) - 1] ?? null;
    }

    /** @param  array<string, array<string, Build>>  $above */
    private static function nextFor(Build $build, Package $package, array $above): ?Build
    {
        $next = null;
        foreach ($package->hardwareIds as $id) {
            foreach ($above[$id] ?? [] as $other) {
                $isSteady = self::steadiness($other->channel) >= self::steadiness($build->channel);
                if ($isSteady && $other->compare($build) > 0 && ($next === null || $other->compare($next) < 0)) {
                    $next = $other;
                }
            }
        }

        return $next;
    }

    private static function steadiness(Channel $channel): int
    {
        return match ($channel) {
            Channel::Beta => 0,
            Channel::Candidate => 1,
            Channel::Release => 2,
        };
    }
}
