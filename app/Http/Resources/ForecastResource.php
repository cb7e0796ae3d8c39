<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Forecast\Forecast;
use JadeStep\Core\Forecast\Horizon;
use JadeStep\Core\Forecast\Silence;
use JadeStep\Core\Time\Rfc3339;

/** What is told of a window's end, or why nothing is. */
final readonly class ForecastResource implements \JsonSerializable
{
    public function __construct(private Forecast|Silence $forecast)
    {
    }

    public function jsonSerialize(): mixed
    {
        $f = $this->forecast;
        if ($f instanceof Silence) {
            return ['silence' => ['code' => $f->value, 'words' => $f->words()], 'told' => null];
        }

        return ['silence' => null, 'told' => [
            'supersededAt' => Rfc3339::format($f->window->supersededAt),
            'ageDays' => round($f->age, 2),
            'closings' => $f->closings,
            'laterClosings' => $f->laterClosings(),
            'restsOn' => $f->restsOn(),
            'halfClosedBy' => Rfc3339::formatOrNull($f->halfClosedBy()),
            'chances' => array_map(
                static fn (Horizon $h): array => ['days' => $h->value]
                    + self::chance($f, $h->after($f->madeAt)),
                Horizon::cases(),
            ),
            'points' => array_map(
                static fn (array $p): array => ['at' => Rfc3339::format($p[0]), 'chance' => $p[1]],
                $f->points(),
            ),
        ]];
    }

    /** @return array<string, mixed> */
    private static function chance(Forecast $forecast, \DateTimeImmutable $at): array
    {
        $chance = $forecast->chanceAt($at);

        return [
            'chance' => $chance->share,
            'low' => $chance->interval?->low,
            'high' => $chance->interval?->high,
            'words' => $chance->words(),
        ];
    }
}
