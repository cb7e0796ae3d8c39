<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Readiness\CheckState;

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
            $package = self::package($almanac, $situation, $leg);
            $wait = max(0, (int) floor(($leg->startsAfterMinutes - $route->legs[0]->startsAfterMinutes) * 60));
            $why =
                $package === null
                    ? "{$leg->to->label()} is not named by the almanac any more."
                    : self::why($leg, $package, $situation->begins()->modify("+{$wait} seconds"));
            if ($why !== null) {
                $closed[] = $why;
            }
        }

        return Check::of(CheckCode::Permit, CheckState::ofReading($closed === []), implode(' ', $closed));
    }

    private static function package(Almanac $almanac, Situation $situation, Leg $leg): ?Package
    {
        return $almanac
            ->build($situation->device->osLine, $leg->to->version, $leg->to->build)
            ?->packageFor((string) $situation->device->hardwareId);
    }

    private static function why(Leg $leg, Package $package, \DateTimeImmutable $at): ?string
    {
        if ($package->sha256 !== $leg->package->sha256) {
            return "{$leg->to->label()} has another package now than the one that was planned with.";
        }
        if ($package->windowAt($at) !== null) {
            return null;
        }
        $ends = array_filter(
            array_column($package->signing, 'until'),
            static fn (?\DateTimeImmutable $u): bool => $u !== null && $u <= $at,
        );
        $since = $ends === [] ? '' : ' since '.max($ends)->format('j M Y, H:i').' UTC';

        return "The window of {$leg->to->label()} is closed{$since}.";
    }
}
