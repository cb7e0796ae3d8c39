<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Channel;
use JadeStep\Core\Almanac\Package;

/**
 * Walks every sequence of up to three legs, each after the first planned for the moment at which its permit is asked
 * for. A build is installed once in a route, what is installed at the start never again, and a beta only where the
 * goal names it.
 *
 * An erase install after another leg can only cost more than the same erase install first, unless that one is not
 * possible yet: so it is walked only where some window has yet to open.
 */
final readonly class Search
{
    private const MOST_LEGS = 3;

    /** @param  list<Build>  $usable */
    private function __construct(
        private Situation $situation,
        private InstallJudge $judge,
        private Timetable $times,
        private array $usable,
        private bool $eraseLate,
    ) {
    }

    /**
     * @param  list<Build>  $builds  of the device's OS line
     * @return list<Crossing>
     */
    public static function crossings(Situation $situation, InstallJudge $judge, Timetable $times, array $builds): array
    {
        $usable = array_values(
            array_filter($builds, static fn (Build $b): bool => self::mayBeLeg($b, $situation, $judge)),
        );
        $eraseLate = array_filter($usable, static fn (Build $b): bool => self::opensLater($b, $situation)) !== [];
        $search = new self($situation, $judge, $times, $usable, $eraseLate);
        $found = [];
        $search->walk(Crossing::start(Installed::on($situation->device), $times->safeguard()), $found);

        return $found;
    }

    /** What no moment and no earlier leg can change, and whether a window is open now or ever will be. */
    private static function mayBeLeg(Build $build, Situation $situation, InstallJudge $judge): bool
    {
        $device = $situation->device;
        $named = $situation->goal->exact?->equals($build->version) === true;

        return ($build->channel !== Channel::Beta || $named)
            && ! Installed::on($device)->runs($build)
            && $judge->always($build) === []
            && (self::packageOf($build, $situation)->windowAt($situation->begins()) !== null
                || self::opensLater($build, $situation));
    }

    private static function opensLater(Build $build, Situation $situation): bool
    {
        foreach (self::packageOf($build, $situation)->signing as $window) {
            if ($window->startsAfter($situation->begins())) {
                return true;
            }
        }

        return false;
    }

    private static function packageOf(Build $build, Situation $situation): Package
    {
        return $build->packageFor((string) $situation->device->hardwareId)
            ?? throw new \LogicException('A usable build has a package.');
    }

    /** @param  list<Crossing>  $found */
    private function walk(Crossing $so, array &$found): void
    {
        foreach ($this->usable as $build) {
            if ($so->visits($build)) {
                continue;
            }
            foreach ($this->legs($so, $build) as $leg) {
                $next = $so->with($leg, $this->times->afterPermit());
                $found[] = $next;
                if (count($next->legs) < self::MOST_LEGS) {
                    $this->walk($next, $found);
                }
            }
        }
    }

    /** @return list<PlannedLeg> one for each move that leads to the build now */
    private function legs(Crossing $so, Build $build): array
    {
        $moves = array_filter(
            $this->judge->moves($build, $so->installed),
            fn (Move $m): bool => ! $m->erases() || $so->legs === [] || $this->eraseLate,
        );
        if ($moves === [] || $this->judge->ofState($build, $so->installed) !== []) {
            return [];
        }
        $package = self::packageOf($build, $this->situation);
        $before = Minutes::sum($so->minutes, $this->times->untilPermit($package));
        $window = $package->windowAt($so->legs === [] ? $this->situation->begins() : $this->at($before));

        return $window === null
            ? []
            : array_map(
                static fn (Move $m): PlannedLeg => new PlannedLeg(
                    $m,
                    $so->installed->version,
                    $so->installed->build,
                    $build,
                    $package,
                    $before,
                    $window->until,
                ),
                array_values($moves),
            );
    }

    private function at(Minutes $after): \DateTimeImmutable
    {
        return $this->situation->begins()->modify('+'.(int) floor($after->expected * 60).' seconds');
    }
}
