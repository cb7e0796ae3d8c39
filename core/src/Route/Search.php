<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Channel;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Almanac\SigningWindow;

/**
 * Walks every sequence of up to three legs, each planned for the moment at which its permit is asked for: when the
 * packages of all legs have been fetched, and the legs before it are done. A build is installed once in a route, what
 * is installed at the start never again, and a beta only where the goal names it.
 *
 * An erase install after another leg can only cost more than the same erase install first, unless that one is not
 * possible yet, or takes another package: so it is walked only where some window has yet to open, or a build has
 * several packages.
 */
final class Search
{
    private const MOST_LEGS = 3;

    /** @var array<int, list<Package>> the packages of each usable build, by the build's object id */
    private array $packages = [];

    /** @var array<int, array{list<array{float, float, SigningWindow}>, float}> by the package's object id: its windows
     *   (from and until in Unix seconds), and the expected minutes to fetch it */
    private array $figures = [];

    /** @var array<string, Crossing> by their way */
    private array $found = [];

    /** @var list<Build> */
    private array $usable = [];

    private bool $eraseLate = false;

    private readonly float $begins;

    private function __construct(
        private readonly Situation $situation,
        private readonly InstallJudge $judge,
        private readonly Timetable $times,
    ) {
        $this->begins = self::seconds($situation->begins());
    }

    /**
     * @param  list<Build>  $builds  of the device's OS line
     * @return list<Crossing>
     */
    public static function crossings(Situation $situation, InstallJudge $judge, Timetable $times, array $builds): array
    {
        $search = new self($situation, $judge, $times);
        foreach ($builds as $build) {
            $search->look($build);
        }
        $search->walk([], Installed::on($situation->device), 0.0);

        return array_values($search->found);
    }

    /** Keeps a build that may be a leg, by what no moment after the earliest and no earlier leg can change. */
    private function look(Build $build): void
    {
        $device = $this->situation->device;
        $named = $this->situation->goal->exact?->equals($build->version) === true;
        if (
            ($build->channel === Channel::Beta && ! $named)
            || Installed::on($device)->runs($build)
            || $this->judge->always($build) !== []
        ) {
            return;
        }
        $packages = [];
        foreach ($build->knownPackagesFor((string) $device->hardwareId, $this->situation->now) as $package) {
            $windows = $this->windowsFrom($package, $this->permitAt(0, 0));
            if ($windows !== []) {
                $packages[] = $package;
                $this->figures[spl_object_id($package)] = [$windows, $this->times->fetch($package)];
                $this->eraseLate = $this->eraseLate || $windows[count($windows) - 1][0] > $this->begins;
            }
        }
        $this->eraseLate = $this->eraseLate || count($packages) > 1;
        if ($packages !== []) {
            $this->usable[] = $build;
            $this->packages[spl_object_id($build)] = $packages;
        }
    }

    /** @return list<array{float, float, SigningWindow}> those that have not ended by a moment */
    private function windowsFrom(Package $package, float $moment): array
    {
        $windows = [];
        foreach ($package->windows as $window) {
            $until = $window->until === null ? INF : self::seconds($window->until);
            if ($until > $moment) {
                $windows[] = [self::seconds($window->from), $until, $window];
            }
        }

        return $windows;
    }

    /**
     * @param  list<PlannedLeg>  $so
     * @param  float  $fetching  expected minutes to fetch the packages so far
     */
    private function walk(array $so, Installed $installed, float $fetching): void
    {
        foreach ($this->usable as $build) {
            $moves = self::visits($so, $build) ? [] : $this->moves($build, $installed, $so === []);
            foreach ($moves === [] ? [] : $this->packages[spl_object_id($build)] as $package) {
                $fetched = $fetching + $this->figures[spl_object_id($package)][1];
                if (! $this->mayStillHold($so, $package, $fetched)) {
                    continue;
                }
                foreach ($moves as $move) {
                    $legs = [...$so, new PlannedLeg($move, $installed->version, $installed->build, $build, $package)];
                    $this->arrive($legs, $fetched);
                    if (count($legs) < self::MOST_LEGS) {
                        $this->walk($legs, $installed->after($build), $fetched);
                    }
                }
            }
        }
    }

    /** @param  list<PlannedLeg>  $legs */
    private static function visits(array $legs, Build $build): bool
    {
        foreach ($legs as $leg) {
            if ($leg->to === $build) {
                return true;
            }
        }

        return false;
    }

    /** @return list<Move> that lead to the build from what is installed then */
    private function moves(Build $build, Installed $installed, bool $first): array
    {
        $moves = Move::open($build, $installed);
        if ($moves === [] || $this->judge->ofState($build, $installed) !== []) {
            return [];
        }

        return $first || $this->eraseLate
            ? $moves
            : array_values(array_filter($moves, static fn (Move $m): bool => ! $m->erases()));
    }

    /**
     * Whether no leg's windows are all over by its permit: what is fetched for further legs only makes it later.
     *
     * @param  list<PlannedLeg>  $so
     */
    private function mayStillHold(array $so, Package $last, float $fetched): bool
    {
        foreach ([...$so, null] as $i => $leg) {
            [$windows] = $this->figures[spl_object_id($leg === null ? $last : $leg->package)];
            if ($windows[count($windows) - 1][1] <= $this->permitAt($i, $fetched)) {
                return false;
            }
        }

        return true;
    }

    /**
     * Keeps the legs where every one of them is within a window. Of the same legs with other packages those are kept
     * whose windows end last.
     *
     * @param  non-empty-list<PlannedLeg>  $legs
     */
    private function arrive(array $legs, float $fetched): void
    {
        foreach ($legs as $i => $leg) {
            $window = $this->windowAt($leg->package, $this->permitAt($i, $fetched));
            if ($window === null) {
                return;
            }
            $legs[$i] = $leg->in($window);
        }
        $crossing = new Crossing($legs);
        $way = $crossing->way();
        if (! isset($this->found[$way]) || $crossing->endsAfter($this->found[$way])) {
            $this->found[$way] = $crossing;
        }
    }

    private function windowAt(Package $package, float $moment): ?SigningWindow
    {
        foreach ($this->figures[spl_object_id($package)][0] as [$from, $until, $window]) {
            if ($from <= $moment && $moment < $until) {
                return $window;
            }
        }

        return null;
    }

    /** @return float Unix seconds at which the permit of a leg is expected to be asked for */
    private function permitAt(int $leg, float $fetched): float
    {
        // to the microsecond, so that the order of adding up does not decide at the very end of a window
        return $this->begins + round($this->times->untilPermit($leg, $fetched) * 60, 6);
    }

    /** @return float Unix seconds */
    private static function seconds(\DateTimeImmutable $time): float
    {
        return (float) $time->format('U.u');
    }
}
