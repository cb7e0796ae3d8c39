<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Route\Plan;
use JadeStep\Core\Route\Reason;
use JadeStep\Core\Route\Route;
use JadeStep\Core\Time\Rfc3339;

/** What a plan made now says otherwise than the plan that was accepted. */
final readonly class PlanDifferences
{
    private function __construct(private Plan $then, private Plan $now, private Route $taken, private Device $device)
    {
    }

    /**
     * @param  Route  $taken  the route of the earlier plan that was taken
     * @return list<PlanDifference>
     */
    public static function between(Plan $then, Plan $now, Route $taken, Device $device): array
    {
        return (new self($then, $now, $taken, $device))->all();
    }

    /** @return list<PlanDifference> */
    private function all(): array
    {
        $same = $this->now->sameWayAs($this->taken);

        return $same === null
            ? [$this->gone(), ...$this->better()]
            : [...$this->legs($same), ...$this->costs($same->losses), ...$this->figures($same), ...$this->better()];
    }

    private function gone(): PlanDifference
    {
        $why = [];
        foreach ($this->taken->legs as $leg) {
            foreach ($this->now->rejected as $rejected) {
                $reasons = $rejected->build->build === $leg->to->build ? $rejected->reasons : [];
                array_push($why, ...array_map(static fn (Reason $r): string => $r->code->value, $reasons));
            }
        }
        $words = $why === [] ? '' : ' ('.implode(', ', array_unique($why)).')';

        return new PlanDifference('route-gone', "The route that was taken is not on offer any more{$words}.");
    }

    /** @return list<PlanDifference> */
    private function better(): array
    {
        $best = $this->now->routes[0] ?? null;
        if ($best === null) {
            return [new PlanDifference('blocked', 'Nothing reaches the goal now.')];
        }
        if ($best->end()->build !== $this->taken->end()->build) {
            $words = "The goal leads to {$best->end()->label()} now, not to {$this->taken->end()->label()}.";

            return [new PlanDifference('other-end', $words)];
        }
        $wasFirst = ($this->then->routes[0] ?? $this->taken)->isSameWayAs($this->taken);

        return $wasFirst && ! $best->isSameWayAs($this->taken)
            ? [new PlanDifference('better-route', "Another route comes first now: {$best->trade}")]
            : [];
    }

    /** @return list<PlanDifference> */
    private function legs(Route $same): array
    {
        $found = [];
        foreach ($this->taken->legs as $i => $leg) {
            $new = $same->legs[$i];
            if ($leg->windowEnds?->getTimestamp() !== $new->windowEnds?->getTimestamp()) {
                $found[] = new PlanDifference(
                    'window-end',
                    self::windowEnd($leg->to->label(), $leg->windowEnds, $new->windowEnds),
                );
            }
            if ($leg->package->sha256 !== $new->package->sha256) {
                $found[] = new PlanDifference(
                    'package',
                    "{$leg->to->label()} has another package now: what was fetched is not it.",
                );
            }
        }

        return $found;
    }

    private static function windowEnd(string $name, ?\DateTimeImmutable $then, ?\DateTimeImmutable $now): string
    {
        $time = Rfc3339::format(...);

        return $now === null
            ? "The end of the window of {$name} is withdrawn."
            : "The window of {$name} ends {$time($now)} now"
                    .($then === null ? ', which was not known.' : ", not {$time($then)}.");
    }

    /** @return list<PlanDifference> */
    private function costs(Losses $now): array
    {
        $then = $this->taken->losses;

        return [
            ...self::cost(
                'is lost now',
                'is not among the losses any more',
                self::labels($then->lost),
                self::labels($now->lost),
            ),
            ...self::cost(
                'is at risk now',
                'is not at risk any more',
                self::labels($then->atRisk),
                self::labels($now->atRisk),
            ),
            ...self::cost(
                'comes back out of date now',
                'is up to date now',
                self::labels($then->outOfDate),
                self::labels($now->outOfDate),
            ),
            ...self::cost(
                'loses its pairing now', 'keeps its pairing now',
                $this->device->accessoryNames($then->pairingLost), $this->device->accessoryNames($now->pairingLost),
            ),
            ...self::cost(
                'does not come back now', 'comes back now',
                $this->device->appNames($then->appsUnavailable), $this->device->appNames($now->appsUnavailable),
            ),
        ];
    }

    /**
     * @param  list<string>  $then
     * @param  list<string>  $now
     * @return list<PlanDifference>
     */
    private static function cost(string $more, string $less, array $then, array $now): array
    {
        $said = static fn (string $code, array $names, string $words): array => array_map(
            static fn (string $name): PlanDifference => new PlanDifference($code, ucfirst($name)." {$words}."),
            array_values($names),
        );

        return [
            ...$said('cost', array_diff($now, $then), $more),
            ...$said('cost-gone', array_diff($then, $now), $less),
        ];
    }

    /** @return list<PlanDifference> */
    private function figures(Route $same): array
    {
        // of the figures as they are shown, so that they add up on the screen
        $minutes = (int) (round($same->minutes->expected) - round($this->taken->minutes->expected));
        $bytes = (int) (round($same->fetchBytes / 1_000_000) - round($this->taken->fetchBytes / 1_000_000));
        $longer = abs($minutes).' min '.($minutes > 0 ? 'longer' : 'less');
        $more = abs($bytes).' MB '.($bytes > 0 ? 'more' : 'less');

        return [
            ...($minutes === 0 ? [] : [new PlanDifference('minutes', "It is expected to take {$longer} than then.")]),
            ...($bytes === 0 ? [] : [new PlanDifference('bytes', "{$more} have to be fetched.")]),
        ];
    }

    /**
     * @param  list<Kind>  $kinds
     * @return list<string>
     */
    private static function labels(array $kinds): array
    {
        return array_map(static fn (Kind $k): string => $k->label(), $kinds);
    }
}
