<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Package;

/** Tells how long windows are likely to hold, from those that were seen until a moment. */
final readonly class Forecaster
{
    /** So many closings have to be seen before anything is said. */
    public const ENOUGH = 5;

    public function __construct(private WindowHistory $history, private \DateTimeImmutable $now)
    {
    }

    /** Of a build's package for a model. */
    public function ofPackage(Build $build, Package $package): Forecast|Silence
    {
        $open = $package->windowAt($this->now);
        $window = $this->history->windowOf($build, $package);

        return match (true) {
            $package->isStaleAt($this->now) => Silence::NotKnown,
            $open === null => Silence::NotOpen,
            $open->until !== null => Silence::EndAnnounced,
            $window === null || $window->supersededAt >= $this->now => Silence::NotSuperseded,
            default => $this->ofWindow($window),
        };
    }

    /** Of a window that is open, and was superseded before now. */
    public function ofWindow(PastWindow $window): Forecast|Silence
    {
        foreach (Pool::cases() as $pool) {
            $lasted = $this->lasted($pool, $window);
            $closings = count(array_filter($lasted, static fn (Lasted $one): bool => $one->ended));
            if ($closings >= self::ENOUGH) {
                $age = max(0.0, $window->days($this->now));
                $curve = SurvivalCurve::ofAge($age, $lasted);

                return $curve->ends() === 0
                    ? Silence::OlderThanAny
                    : new Forecast($window, $this->now, $age, $pool, $closings, $curve);
            }
        }

        return Silence::TooFewClosings;
    }

    /** @return list<Lasted> */
    private function lasted(Pool $pool, PastWindow $asked): array
    {
        $lasted = [];
        foreach ($this->history->windows as $window) {
            $one = $pool->holds($window, $asked) ? $window->lastedAt($this->now) : null;
            if ($one !== null) {
                $lasted[] = $one;
            }
        }

        return $lasted;
    }
}
