<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Version\Version;

/** What a plan made now says otherwise than the plan that was accepted. Both are `jade-step/plan` documents as arrays. */
final class PlanDifferences
{
    private const COSTS = [
        'lost' => 'is lost now', 'atRisk' => 'is at risk now', 'outOfDate' => 'comes back out of date now',
        'pairingLost' => 'loses its pairing now', 'appsUnavailable' => 'does not come back now',
    ];

    /**
     * @param  array<string, mixed>  $then
     * @param  array<string, mixed>  $now
     * @param  array<string, mixed>  $taken  the route of the earlier plan that was taken
     * @return list<array{code: string, words: string}>
     */
    public static function between(array $then, array $now, array $taken): array
    {
        $same = null;
        foreach ($now['routes'] as $route) {
            if (self::key($route) === self::key($taken)) {
                $same = $route;
            }
        }
        if ($same === null) {
            return [self::gone($now, $taken), ...self::better($then, $now, $taken)];
        }

        return [...self::legs($taken, $same), ...self::costs($taken['losses'], $same['losses']), ...self::figures($taken, $same), ...self::better($then, $now, $taken)];
    }

    /**
     * @param  array<string, mixed>  $now
     * @param  array<string, mixed>  $taken
     * @return array{code: string, words: string}
     */
    private static function gone(array $now, array $taken): array
    {
        $why = [];
        foreach ($taken['legs'] as $leg) {
            foreach ($now['rejected'] as $rejected) {
                if ($rejected['build'] === $leg['to']['build']) {
                    $why = [...$why, ...array_column($rejected['reasons'], 'code')];
                }
            }
        }
        $words = $why === [] ? '' : ' ('.implode(', ', array_unique($why)).')';

        return ['code' => 'route-gone', 'words' => 'The route that was taken is not on offer any more'.$words.'.'];
    }

    /**
     * @param  array<string, mixed>  $then
     * @param  array<string, mixed>  $now
     * @param  array<string, mixed>  $taken
     * @return list<array{code: string, words: string}>
     */
    private static function better(array $then, array $now, array $taken): array
    {
        $best = $now['routes'][0] ?? null;
        if ($best === null) {
            return [['code' => 'blocked', 'words' => 'Nothing reaches the goal now.']];
        }
        $end = $best['legs'][count($best['legs']) - 1]['to'];
        $goal = $taken['legs'][count($taken['legs']) - 1]['to'];
        if ($end['build'] !== $goal['build']) {
            return [['code' => 'other-end', 'words' => 'The goal leads to '.Version::parse($end['version'])->label()." ({$end['build']}) now, not to ".Version::parse($goal['version'])->label()." ({$goal['build']})."]];
        }
        $wasFirst = self::key($then['routes'][0] ?? $taken) === self::key($taken);

        return $wasFirst && self::key($best) !== self::key($taken) ? [['code' => 'better-route', 'words' => "Another route comes first now: {$best['trade']}"]] : [];
    }

    /**
     * @param  array<string, mixed>  $taken
     * @param  array<string, mixed>  $same
     * @return list<array{code: string, words: string}>
     */
    private static function legs(array $taken, array $same): array
    {
        $found = [];
        foreach ($taken['legs'] as $i => $leg) {
            $new = $same['legs'][$i];
            $name = Version::parse($leg['to']['version'])->label()." ({$leg['to']['build']})";
            if ($leg['windowEnds'] !== $new['windowEnds']) {
                $found[] = ['code' => 'window-end', 'words' => $new['windowEnds'] === null ? "The end of the window of {$name} is withdrawn." : "The window of {$name} ends ".self::time($new['windowEnds']).' now'.($leg['windowEnds'] === null ? ', which was not known.' : ', not '.self::time($leg['windowEnds']).'.')];
            }
            if ($leg['package']['sha256'] !== $new['package']['sha256']) {
                $found[] = ['code' => 'package', 'words' => "{$name} has another package now: what was fetched is not it."];
            }
        }

        return $found;
    }

    /**
     * @param  array<string, list<string>>  $then
     * @param  array<string, list<string>>  $now
     * @return list<array{code: string, words: string}>
     */
    private static function costs(array $then, array $now): array
    {
        $found = [];
        foreach (self::COSTS as $field => $words) {
            foreach (array_diff($now[$field], $then[$field]) as $name) {
                $found[] = ['code' => 'cost', 'words' => self::name($name)." {$words}."];
            }
            foreach (array_diff($then[$field], $now[$field]) as $name) {
                $found[] = ['code' => 'cost-gone', 'words' => self::name($name).' is not among '.($field === 'lost' ? 'the losses' : 'these costs').' any more.'];
            }
        }

        return $found;
    }

    /**
     * @param  array<string, mixed>  $taken
     * @param  array<string, mixed>  $same
     * @return list<array{code: string, words: string}>
     */
    private static function figures(array $taken, array $same): array
    {
        $minutes = (int) round($same['minutes']['expected'] - $taken['minutes']['expected']);
        $bytes = (int) round(($same['fetchBytes'] - $taken['fetchBytes']) / 1_000_000);

        return [
            ...($minutes === 0 ? [] : [['code' => 'minutes', 'words' => 'It is expected to take '.abs($minutes).' min '.($minutes > 0 ? 'longer' : 'less').' than then.']]),
            ...($bytes === 0 ? [] : [['code' => 'bytes', 'words' => abs($bytes).' MB '.($bytes > 0 ? 'more' : 'less').' have to be fetched.']]),
        ];
    }

    /** @param  array<string, mixed>  $route */
    private static function key(array $route): string
    {
        return implode(', ', array_map(static fn (array $l): string => "{$l['move']} {$l['to']['version']} {$l['to']['build']}", $route['legs'])).' / '.($route['base']['backup'] ?? '').' '.($route['base']['treatment'] ?? '');
    }

    private static function name(string $code): string
    {
        return ucfirst(Kind::tryFrom($code)?->label() ?? $code);
    }

    private static function time(string $time): string
    {
        return (new \DateTimeImmutable($time))->format('j M Y, H:i').' UTC';
    }
}
