<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Device\Kind;

/** Says in one sentence what a route trades. */
final class Trade
{
    /** @param  Route|null  $best the best route, where this is another */
    public static function sentence(Route $route, ?Route $best): string
    {
        $costs = self::costs($route->losses);
        $against = $best === null ? [] : self::against(Price::of($route), Price::of($best));

        return self::way($route).' '.self::data($route)
            .($costs === [] ? '; nothing is lost' : '; '.implode(', ', $costs))
            .($against === [] ? '.' : '. Against the first: '.implode(', ', $against).'.');
    }

    private static function way(Route $route): string
    {
        $erases = $route->erases();
        $legs = count($route->legs);

        return match (true) {
            $erases === 0 => $legs === 1 ? 'Moves in place' : "Moves in place in {$legs} legs",
            $erases === $legs => $erases === 1 ? 'Erases once' : "Erases {$erases} times",
            default => 'Erases '.($erases === 1 ? 'once' : "{$erases} times").', then updates in place,',
        };
    }

    private static function data(Route $route): string
    {
        if ($route->base === null) {
            return 'and keeps the data where it is';
        }
        $which = $route->base->backup === 'planned' ? 'the new backup' : "the backup {$route->base->backup}";

        return match ($route->base->treatment) {
            Treatment::AsIs => "and puts {$which} back as it is",
            Treatment::Lowered => "and puts {$which} back through a lowered copy",
            Treatment::None => 'and puts no backup back',
        };
    }

    /** @return list<string> */
    private static function costs(Losses $losses): array
    {
        return array_values(array_filter([
            $losses->lost === [] ? '' : 'loses '.self::names($losses->lost),
            $losses->atRisk === [] ? '' : 'risks '.self::names($losses->atRisk),
            $losses->outOfDate === [] ? '' : 'brings '.self::names($losses->outOfDate).' back out of date',
            $losses->pairingLost === [] ? '' : 'unpairs '.implode(', ', array_column($losses->pairingLost, 'id')),
            $losses->appsUnavailable === [] ? '' : 'leaves out '.implode(', ', array_column($losses->appsUnavailable, 'name')),
        ]));
    }

    /** @return list<string> */
    private static function against(Price $mine, Price $best): array
    {
        $minutes = (int) round($mine->minutes - $best->minutes);
        $megabytes = (int) round(($mine->bytes - $best->bytes) / 1_000_000);

        return array_values(array_filter([
            $minutes === 0 ? '' : abs($minutes).' min '.($minutes < 0 ? 'less' : 'more'),
            $megabytes === 0 ? '' : abs($megabytes).' MB '.($megabytes < 0 ? 'less' : 'more').' to fetch',
            $mine->erases < $best->erases ? 'fewer erases' : '',
            $mine->atRisk < $best->atRisk ? 'less at risk' : '',
            $mine->staleness < $best->staleness ? 'more up to date' : '',
        ]));
    }

    /** @param  list<Kind>  $kinds */
    private static function names(array $kinds): string
    {
        return implode(', ', array_map(static fn (Kind $k): string => $k->label(), $kinds));
    }
}
