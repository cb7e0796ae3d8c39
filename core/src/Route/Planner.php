<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Channel;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Readiness\CheckState;
use JadeStep\Core\Readiness\DeviceChecks;

/** Answers a situation with every route that no other beats, best first, or says why none is there and what is near. */
final readonly class Planner
{
    public function __construct(private Almanac $almanac)
    {
    }

    public function plan(Situation $situation): Plan
    {
        $device = $situation->device;
        $builds = $this->almanac->builds($device->osLine);
        $times = new Timetable($situation);
        $judge = new InstallJudge($this->almanac, $situation, $times);
        $crossings = Search::crossings($situation, $judge, $times, $builds);
        $reached = self::ends($crossings);
        $end = self::newest(array_filter($reached, $situation->goal->admits(...)), $situation->goal);
        $routes = $end === null ? [] : (new RouteMaker($this->almanac, $situation, $times))->routes($end, $crossings);

        return new Plan(
            $routes,
            self::rejections($builds, $end, $situation, $judge),
            $end === null ? Nearest::of($reached, $situation, $this->installed($situation))?->name() : null,
            $this->checks($situation, $routes[0] ?? null),
        );
    }

    /**
     * @param  list<Crossing>  $crossings
     * @return list<Build> every build that a crossing ends on, highest first
     */
    private static function ends(array $crossings): array
    {
        $ends = [];
        foreach ($crossings as $crossing) {
            $ends[spl_object_id($crossing->end())] = $crossing->end();
        }
        usort($ends, static fn (Build $a, Build $b): int => $a->compareForList($b));

        return $ends;
    }

    /** @param  array<Build>  $builds highest first */
    private static function newest(array $builds, Goal $goal): ?Build
    {
        $releases = array_filter($builds, static fn (Build $b): bool => $b->channel === Channel::Release);
        $choice = $goal->prefersReleases() && $releases !== [] ? $releases : $builds;

        return array_values($choice)[0] ?? null;
    }

    /**
     * Every build that the goal admits and no route ends on, with all the reasons against it. A build that could be
     * reached but is not the newest has none. Where nothing is reached, and the goal is what is installed, that is said
     * of it, and nothing else.
     *
     * @param  list<Build>  $builds
     * @return list<Rejection>
     */
    private static function rejections(array $builds, ?Build $end, Situation $situation, InstallJudge $judge): array
    {
        $from = Installed::on($situation->device);
        $found = [];
        foreach ($builds as $build) {
            if ($build !== $end && $situation->goal->admits($build)) {
                $reasons =
                    $end === null && $from->runs($build)
                        ? [Reason::of(ReasonCode::SameBuild)]
                        : $judge->reasons($build, $from);
                if ($reasons !== []) {
                    $found[] = new Rejection($build->name(), $reasons);
                }
            }
        }

        return $found;
    }

    private function installed(Situation $situation): ?Build
    {
        $device = $situation->device;

        return $this->almanac->build($device->osLine, $device->version, $device->build);
    }

    /**
     * The readiness checks of a route that was taken, at this moment: with its own packages, windows and losses.
     *
     * @return list<Check>
     */
    public function checksOf(Situation $situation, Route $route): array
    {
        return [...$this->checks($situation, $route), RouteWindows::check($this->almanac, $situation, $route)];
    }

    /** @return list<Check> */
    private function checks(Situation $situation, ?Route $route): array
    {
        return [
            ...DeviceChecks::of(
                $situation->device,
                $this->almanac->cataloguesOf($situation->device->osLine),
                $situation->bench->hostAgent,
                self::diskSpace($situation, $route),
                $situation->now,
            ),
            ...($route === null ? [] : self::acceptance($situation, $route->losses)),
        ];
    }

    /** How large the backup will be is not known where the device's storage was not read. */
    private static function diskSpace(Situation $situation, ?Route $route): CheckState
    {
        $device = $situation->device;
        $isRead = $device->capacityBytes !== null && $device->freeBytes !== null;

        return match (true) {
            $route === null => CheckState::DoesNotApply,
            ! $isRead && $situation->backupToTake() !== PlannedBackup::None => CheckState::Unknown,
            default => CheckState::ofReading($route->diskPeakBytes <= $situation->bench->freeDiskBytes),
        };
    }

    /** @return list<Check> */
    private static function acceptance(Situation $situation, Losses $losses): array
    {
        $unpaired = array_values(array_diff($losses->pairingLost, $situation->acceptedPairingLost));
        $apps = array_values(array_diff($losses->appsUnavailable, $situation->acceptedAppsUnavailable));
        $device = $situation->device;
        $state = static fn (array $lost, array $open): CheckState => $lost === []
            ? CheckState::DoesNotApply
            : CheckState::ofReading($open === []);

        return [
            Check::of(
                CheckCode::AccessoryAccepted,
                $state($losses->pairingLost, $unpaired),
                implode(', ', $device->accessoryNames($unpaired)),
            ),
            Check::of(
                CheckCode::AppsAccepted,
                $state($losses->appsUnavailable, $apps),
                implode(', ', $device->appNames($apps)),
            ),
        ];
    }
}
