<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Readiness\CheckState;
use JadeStep\Core\Time\Rfc3339;

/**
 * Whether the vendor still signs a route that was taken. The permit itself is asked for at the moment of the install;
 * what is known to be closed by then is not worth an erase line.
 */
final class RouteWindows
{
    public static function check(Almanac $almanac, Situation $situation, Route $route): Check
    {
        $closed = [];
        foreach ($route->legs as $leg) {
            $wait = max(0, $leg->startsAfterMinutes - $route->legs[0]->startsAfterMinutes);
            $why = self::why($leg, self::packages($almanac, $situation, $leg), $situation->after($wait));
            if ($why !== null) {
                $closed[] = $why;
            }
        }

        return Check::of(CheckCode::Permit, CheckState::ofReading($closed === []), implode(' ', $closed));
    }

    /** @return list<Package> those of the leg's build for this device that the almanac can speak of */
    private static function packages(Almanac $almanac, Situation $situation, Leg $leg): array
    {
        return $almanac
            ->build($situation->device->osLine, $leg->to->version, $leg->to->build)
            ?->knownPackagesFor((string) $situation->device->hardwareId, $situation->now) ?? [];
    }

    /** @param  list<Package>  $packages */
    private static function why(Leg $leg, array $packages, \DateTimeImmutable $at): ?string
    {
        $same = array_filter($packages, static fn (Package $p): bool => $p->sha256 === $leg->package->sha256);
        if ($same === []) {
            return $packages === []
                ? "{$leg->to->label()} is not named by the almanac any more."
                : "{$leg->to->label()} has another package now than the one that was planned with.";
        }
        if (array_filter($same, static fn (Package $p): bool => $p->windowAt($at) !== null) !== []) {
            return null;
        }
        $windows = array_merge(...array_map(static fn (Package $p): array => $p->windows, array_values($same)));
        $ends = array_filter(
            array_column($windows, 'until'),
            static fn (?\DateTimeImmutable $u): bool => $u !== null && $u <= $at,
        );
        $since = $ends === [] ? '' : ' since '.Rfc3339::format(max($ends));

        return "The window of {$leg->to->label()} is closed{$since}.";
    }
}
