<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Route\KindReason;
use JadeStep\Core\Route\Source;
use JadeStep\Core\Time\Rfc3339;

/** Reads the ledger of a route back from a plan document that this program has written. */
final class PlanFates
{
    /**
     * @param  list<array<string, mixed>>  $kinds
     * @return list<KindFate>
     */
    public static function read(array $kinds): array
    {
        return array_map(static fn (array $k): KindFate => new KindFate(
            Kind::from($k['kind']),
            Outcome::from($k['outcome']),
            $k['from'] === null ? null : Source::from($k['from']),
            $k['asOf'] === null ? null : Rfc3339::parse($k['asOf']),
            isset($k['reason']) ? KindReason::from($k['reason']) : null,
            0,
        ), $kinds);
    }
}
