<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Device\Kind;

/** Says in one sentence what a route trades. */
final class Trade
{
    public static function sentence(Base $base, Losses $losses): string
    {
        $how = match ($base->treatment) {
            Treatment::AsIs => 'Erases once and puts the backup back as it is',
            Treatment::Lowered => 'Erases once and puts the backup back through a lowered copy',
            Treatment::None => 'Erases once and puts nothing back',
        };
        $costs = array_filter([
            $losses->lost === [] ? '' : 'loses '.self::names($losses->lost),
            $losses->atRisk === [] ? '' : 'risks '.self::names($losses->atRisk),
            $losses->outOfDate === [] ? '' : 'brings '.self::names($losses->outOfDate).' back out of date',
            $losses->pairingLost === [] ? '' : 'unpairs '.implode(', ', array_column($losses->pairingLost, 'id')),
            $losses->appsUnavailable === [] ? '' : 'leaves out '.implode(', ', array_column($losses->appsUnavailable, 'name')),
        ]);

        return $how.($costs === [] ? '; every kind comes back.' : '; '.implode(', ', $costs).'.');
    }

    /** @param  list<Kind>  $kinds */
    private static function names(array $kinds): string
    {
        return implode(', ', array_map(static fn (Kind $k): string => $k->label(), $kinds));
    }
}
