<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Build;

/** Joins crossings with bases into routes, and keeps those that no other beats. */
final readonly class RouteMaker
{
    public function __construct(private Almanac $almanac, private Situation $situation, private Timetable $times)
    {
    }

    /**
     * @param  list<Crossing>  $crossings
     * @return list<Route> the Pareto set, best first
     */
    public function routes(Build $end, array $crossings): array
    {
        $device = $this->situation->device;
        $bases = Bases::of(
            $this->situation,
            $end,
            $this->almanac->build($device->osLine, $device->version, $device->build),
        );
        $routes = [];
        foreach ($crossings as $crossing) {
            if ($crossing->end() === $end) {
                array_push($routes, ...$this->withBases($crossing, $bases));
            }
        }

        return $this->named(self::unbeaten($routes));
    }

    /**
     * @param  list<Base>  $bases
     * @return list<Route>
     */
    private function withBases(Crossing $crossing, array $bases): array
    {
        return $crossing->erases() === 0 && $this->situation->device->dataOnDevice
            ? [$this->route($crossing, null)]
            : array_map(fn (Base $b): Route => $this->route($crossing, $b), $bases);
    }

    private function route(Crossing $crossing, ?Base $base): Route
    {
        $device = $this->situation->device;
        $end = $crossing->end();
        $fates = $base === null ? Ledger::kept($this->situation) : Ledger::of($this->situation, $end, $base);
        $bytes = $base === null || $base->treatment === Treatment::None ? null : $this->bytesOf($base);
        $steps = $this->times->bySteps($crossing->legs, $bytes, $base?->inCloud === true);
        $legs = array_map(
            static fn (PlannedLeg $l, Minutes $before): Leg => $l->told($before),
            $crossing->legs,
            $this->times->untilPermits($crossing->legs),
        );

        return new Route(
            '',
            $legs,
            $crossing->fetchBytes(),
            $this->diskPeak($crossing),
            Minutes::sum(...array_map(static fn (StepEstimate $s): Minutes => $s->minutes, $steps)),
            $base?->use(),
            $fates,
            Ledger::staleSeconds($device, $fates),
            Losses::of($fates, $device, $this->almanac, $end->version),
            '',
            $steps,
            $this->times->latestStart($crossing->legs),
        );
    }

    /** A held backup's size is not told; what the device holds of its kinds now stands in for it. */
    private function bytesOf(Base $base): int
    {
        $bytes = 0;
        foreach ($this->situation->device->kinds as $stock) {
            $bytes += $base->holds($stock->kind) ? $stock->bytes : 0;
        }

        return $bytes;
    }

    /** With the backup at its largest. */
    private function diskPeak(Crossing $crossing): int
    {
        return DiskNeed::of(
            [$this->situation->diskForBackup()],
            array_map(static fn (PlannedLeg $l): int => $l->package->bytes, $crossing->legs),
        );
    }

    /**
     * @param  list<Route>  $routes
     * @return list<Route>
     */
    private static function unbeaten(array $routes): array
    {
        $priced = array_map(static fn (Route $r): array => [Price::of($r), $r], $routes);
        usort(
            $priced,
            static fn (array $a, array $b): int => [$a[0]->compare($b[0]), strcmp(self::key($a[1]), self::key($b[1]))]
                <=> [0, 0],
        );
        $kept = [];
        foreach ($priced as [$price, $route]) {
            foreach ($kept as [$other]) {
                if ($other->beats($price)) {
                    continue 2;
                }
            }
            $kept[] = [$price, $route];
        }

        return array_column($kept, 1);
    }

    /** Tells two routes of one price apart, so that their order is always the same. */
    private static function key(Route $route): string
    {
        $legs = array_map(static fn (Leg $l): string => $l->move->value.' '.$l->to->build, $route->legs);

        // of two that cost the same, the backup that is taken first comes before an older one
        return implode(', ', $legs)
            .' / '
            .($route->base?->backup === BaseUse::PLANNED ? '' : $route->base->backup ?? '');
    }

    /**
     * @param  list<Route>  $routes  best first
     * @return list<Route>
     */
    private function named(array $routes): array
    {
        $named = [];
        foreach ($routes as $i => $route) {
            $trade = Trade::sentence($route, $i === 0 ? null : $routes[0], $this->situation->device);
            $named[] = $route->named('r'.($i + 1), $trade);
        }

        return $named;
    }
}
