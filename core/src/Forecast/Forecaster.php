<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Package;

/** Tells how long windows are likely to hold, from those that were seen until a moment. */
final class Forecaster
{
    /** So many closings have to be seen before anything is said. */
    public const ENOUGH = 5;

    /** @var array<string, list<Lasted>> by pool, since many windows are asked for */
    private array $lasted = [];

    public function __construct(private readonly WindowHistory $history, private readonly \DateTimeImmutable $now)
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

    /** @return list<Forecast> of every open window that is superseded and has no known end, where it is not silent */
    public function ofAllOpen(): array
    {
        $told = [];
        foreach ($this->history->windows as $window) {
            $isAsked = $window->supersededAt < $this->now
                && $window->endsAt === null
                && $window->knownUntil >= $this->now;
            $forecast = $isAsked ? $this->ofWindow($window) : Silence::NotOpen;
            if ($forecast instanceof Forecast) {
                $told[] = $forecast;
            }
        }

        return $told;
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
        return $this->lasted[$pool->name($asked)] ??= $this->lookBack($pool, $asked);
    }

    /** @return list<Lasted> */
    private function lookBack(Pool $pool, PastWindow $asked): array
    {
        $lasted = [];
        foreach ($this->history->windows as $window) {
            $one = $pool->name($window) === $pool->name($asked) ? $window->lastedAt($this->now) : null;
            if ($one !== null) {
                $lasted[] = $one;
            }
        }

        return $lasted;
    }
}
