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

/** Finds the way down: one erase install to the newest build that the goal admits, with the planned backup put back. */
final readonly class Planner
{
    public function __construct(private Almanac $almanac)
    {
    }

    public function plan(Situation $situation): Plan
    {
        $judge = new InstallJudge($this->almanac, $situation->device, $situation->bench->hostAgent);
        $open = [];
        $judged = [];
        foreach ($this->almanac->builds($situation->device->osLine) as $build) {
            $reasons = $judge->eraseInstall($build, $situation->now);
            $judged[] = new Rejection($build, $reasons);
            if ($reasons === []) {
                $open[] = $build;
            }
        }
        $end = self::newest(array_filter($open, $situation->goal->admits(...)), $situation->goal);
        $routes = $end === null ? [] : [$this->route($situation, $end)];

        return new Plan(
            $routes,
            array_values(array_filter($judged, static fn (Rejection $r): bool => $r->build !== $end && $r->reasons !== [] && $situation->goal->admits($r->build))),
            $end === null ? self::nearest($open, $situation) : null,
            $this->checks($situation, $routes[0] ?? null),
        );
    }

    /** @param  array<Build>  $builds highest first */
    private static function newest(array $builds, Goal $goal): ?Build
    {
        $releases = array_filter($builds, static fn (Build $b): bool => $b->channel === Channel::Release);
        $choice = $goal->prefersReleases() && $releases !== [] ? $releases : $builds;

        return array_values($choice)[0] ?? null;
    }

    /**
     * The lowest reachable version above what was asked and below the installed one, else the highest below it.
     *
     * @param  list<Build>  $open  highest first
     */
    private static function nearest(array $open, Situation $situation): ?Build
    {
        $usable = array_values(array_filter(
            $open,
            static fn (Build $b): bool => $b->channel !== Channel::Beta && $b->version->isBelow($situation->device->version),
        ));
        $above = array_values(array_filter($usable, static fn (Build $b): bool => self::isAboveGoal($b, $situation->goal)));
        $below = array_values(array_filter($usable, static fn (Build $b): bool => ! self::isAboveGoal($b, $situation->goal)));

        return $above === [] ? ($below[0] ?? null) : $above[count($above) - 1];
    }

    private static function isAboveGoal(Build $build, Goal $goal): bool
    {
        return match (true) {
            $goal->exact !== null => $build->version->isAbove($goal->exact),
            $goal->newestInMajor !== null => $build->version->major > $goal->newestInMajor,
            $goal->newestBelow !== null => ! $build->version->isBelow($goal->newestBelow),
            $goal->newestBefore !== null => $build->releasedAt >= $goal->newestBefore,
            default => false,
        };
    }

    private function route(Situation $situation, Build $end): Route
    {
        $device = $situation->device;
        $package = $end->packageFor((string) $device->hardwareId) ?? throw new \LogicException('A build without a package for the device has no route.');
        $base = $situation->plannedBackup === PlannedBackup::None
            ? Base::none()
            : Base::bag('planned', $device->version, $end->version);
        $installed = $this->almanac->build($device->osLine, $device->version, $device->build);
        $fates = Ledger::of($situation, $end, $base, $installed);
        $times = Timetable::of($situation, $package->bytes, $base->treatment !== Treatment::None);
        $leg = new Leg(Move::EraseInstall, $device->version, $device->build, $end, $package, $times->untilPermit, $package->windowAt($situation->now)?->until);
        $losses = Losses::of($fates, $device, $this->almanac, $end->version);

        return new Route('r1', [$leg], $package->bytes, self::diskPeak($situation, $package->bytes), $times->whole, $base, $fates, $losses, Trade::sentence($base, $losses));
    }

    /** The backup at its largest, the package twice (file and extraction), and 10 % spare. */
    private static function diskPeak(Situation $situation, int $fetchBytes): int
    {
        $backup = $situation->plannedBackup === PlannedBackup::None ? 0 : $situation->device->backupBytesAtMost();

        $need = $backup + 2 * $fetchBytes;

        return $need + intdiv($need + 9, 10);
    }

    /** @return list<Check> */
    private function checks(Situation $situation, ?Route $route): array
    {
        return [
            ...DeviceChecks::of(
                $situation->device,
                $this->almanac->catalogueFor($situation->device->osLine),
                $route === null ? 0 : $route->diskPeakBytes,
                $situation->bench->freeDiskBytes,
                $situation->now,
            ),
            ...($route === null ? [] : self::acceptance($situation, $route->losses)),
        ];
    }

    /** @return list<Check> */
    private static function acceptance(Situation $situation, Losses $losses): array
    {
        $unaccepted = array_filter($losses->pairingLost, static fn ($a): bool => ! in_array($a->id, $situation->acceptedPairingLost, true));
        $missing = array_filter($losses->appsUnavailable, static fn ($a): bool => ! in_array($a->id, $situation->acceptedAppsUnavailable, true));

        return [
            Check::of(CheckCode::AccessoryAccepted, CheckState::ofReading($unaccepted === []), implode(', ', array_column($unaccepted, 'id'))),
            Check::of(CheckCode::AppsAccepted, CheckState::ofReading($missing === []), implode(', ', array_column($missing, 'name'))),
        ];
    }
}
