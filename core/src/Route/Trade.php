<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Text;

/** Says in one sentence what a route trades. */
final class Trade
{
    /** More than so many kinds are counted here; the ledger names each. */
    private const NAMED = 3;

    /** @param  Route|null  $best the best route, where this is another */
    public static function sentence(Route $route, ?Route $best, Device $device): string
    {
        $costs = self::costs($route->losses, $device);
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
        $which = $route->base->backup === BaseUse::PLANNED ? 'the new backup' : 'an earlier backup';

        return match ($route->base->treatment) {
            Treatment::AsIs => "and puts {$which} back as it is",
            Treatment::Lowered => "and puts {$which} back through a lowered copy",
            Treatment::None => 'and puts no backup back',
        };
    }

    /** @return list<string> */
    private static function costs(Losses $losses, Device $device): array
    {
        // where the accessories are named, their kind is not said a second time
        $lost = array_values(array_filter(
            $losses->lost,
            static fn (Kind $k): bool => $k !== Kind::AccessoryPairing || $losses->pairingLost === [],
        ));

        return Text::said([
            $lost === [] ? '' : 'loses '.self::names($lost),
            $losses->atRisk === [] ? '' : 'risks '.self::names($losses->atRisk),
            $losses->outOfDate === [] ? '' : 'brings '.self::names($losses->outOfDate).' back out of date',
            $losses->pairingLost === []
                ? ''
                : 'unpairs '.implode(', ', $device->accessoryNames($losses->pairingLost)),
            $losses->appsUnavailable === []
                ? ''
                : 'leaves out '.implode(', ', $device->appNames($losses->appsUnavailable)),
        ]);
    }

    /** @return list<string> */
    private static function against(Price $mine, Price $best): array
    {
        // of the figures as they are shown, so that they add up on the screen
        $minutes = (int) (round($mine->minutes) - round($best->minutes));
        $megabytes = (int) (round($mine->bytes / 1_000_000) - round($best->bytes / 1_000_000));

        return Text::said([
            $minutes === 0 ? '' : abs($minutes).' min '.($minutes < 0 ? 'less' : 'more'),
            $megabytes === 0 ? '' : abs($megabytes).' MB '.($megabytes < 0 ? 'less' : 'more').' to fetch',
            $mine->erases < $best->erases ? 'fewer erases' : '',
            $mine->atRisk < $best->atRisk ? 'less at risk' : '',
            $mine->staleness < $best->staleness ? 'more up to date' : '',
        ]);
    }

    /** @param  list<Kind>  $kinds */
    private static function names(array $kinds): string
    {
        return count($kinds) > self::NAMED
            ? count($kinds).' kinds'
            : implode(', ', array_map(static fn (Kind $k): string => $k->label(), $kinds));
    }
}
