<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\BenchJob;
use JadeStep\Core\Device\Kind;

/** What a job ends without, by name: kinds that are not all there, accessories and apps. */
final class EndedLosses
{
    /** @return list<string> in words */
    public static function of(BenchJob $job): array
    {
        $lossy = [...$job->proof['unexpected'] ?? [], ...$job->proof['named'] ?? []];
        $device = $job->device ?? [];
        $losses = TheReturn::of($job)->losses;
        $apps = array_column($device['apps'] ?? [], 'name', 'id');

        return [
            ...array_values(array_map(self::kind(...), array_filter($job->proof['kinds'] ?? [], static fn (array $k): bool => in_array($k['kind'], $lossy, true)))),
            ...array_map(static fn (string $id): string => "the pairing with {$id}", $losses['pairingLost'] ?? []),
            ...array_map(static fn (string $id): string => 'the app '.($apps[$id] ?? $id), $losses['appsUnavailable'] ?? []),
        ];
    }

    /** @param  array<string, mixed>  $kind  of a proof */
    private static function kind(array $kind): string
    {
        $label = Kind::from($kind['kind'])->label();
        $gone = $kind['before'] - $kind['there'];

        return $kind['there'] === 0 ? "{$label}, all of it" : "{$gone} of {$kind['before']} in {$label}";
    }
}
