<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Route\Leg;
use JadeStep\Core\Route\Route;
use JadeStep\Core\Route\Situation;

/** What is told of the windows that a route needs. It stands beside the route, and never in its latest start. */
final readonly class RouteChance
{
    /**
     * @param  list<LegChance>  $legs  those of the route, in their order
     * @param  \DateTimeImmutable  $begins  when the work is to begin
     */
    private function __construct(public array $legs, private \DateTimeImmutable $begins)
    {
    }

    public static function of(Almanac $almanac, Forecaster $forecaster, Situation $situation, Route $route): self
    {
        $legs = [];
        foreach ($route->legs as $leg) {
            $told = self::leg($almanac, $forecaster, $situation, $leg);
            if ($told !== null) {
                $legs[] = $told;
            }
        }

        return new self($legs, $situation->begins());
    }

    private static function leg(
        Almanac $almanac,
        Forecaster $forecaster,
        Situation $situation,
        Leg $leg,
    ): ?LegChance {
        $build = $almanac->build($situation->device->osLine, $leg->to->version, $leg->to->build);
        foreach ($build?->packagesFor((string) $situation->device->hardwareId) ?? [] as $package) {
            if ($build !== null && $package->sha256 === $leg->package->sha256) {
                $forecast = $forecaster->ofPackage($build, $package);
                $at = $situation->after($leg->startsAfterMinutes);
                $chance = $forecast instanceof Forecast ? $forecast->chanceAt($at) : null;

                return new LegChance($leg->to, $forecast, $at, $chance);
            }
        }

        return null;
    }

    /** The leg whose window is the least likely to be open in time; null where nothing is told of any. */
    public function least(): ?LegChance
    {
        $told = array_filter($this->legs, static fn (LegChance $l): bool => $l->chance !== null);
        usort($told, static fn (LegChance $a, LegChance $b): int => $a->chance?->share <=> $b->chance?->share);

        return $told[0] ?? null;
    }

    /**
     * By when the work should begin so that every permit is asked for before half of such windows were closed. It is an
     * estimate: how urgent a job is may rest on it, what is allowed may not.
     */
    public function startBy(): ?\DateTimeImmutable
    {
        $earliest = null;
        foreach ($this->legs as $leg) {
            $half = $leg->halfClosedBy();
            if ($half !== null) {
                $way = $leg->permitAt->getTimestamp() - $this->begins->getTimestamp();
                $start = $half->setTimestamp($half->getTimestamp() - $way);
                $earliest = $earliest === null ? $start : min($earliest, $start);
            }
        }

        return $earliest;
    }

    public function isLittle(): bool
    {
        return $this->least()?->chance?->isLittle() ?? false;
    }
}
