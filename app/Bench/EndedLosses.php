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
        $device = $job->device ?? [];
        $losses = TheReturn::of($job)->losses;
        $apps = array_column($device['apps'] ?? [], 'name', 'id');

        return [
            ...array_values(array_filter(array_map(self::kind(...), $job->proof['kinds'] ?? []))),
            ...array_map(static fn (string $id): string => "the pairing with {$id}", $losses['pairingLost'] ?? []),
            ...array_map(static fn (string $id): string => 'the app '.($apps[$id] ?? $id), $losses['appsUnavailable'] ?? []),
        ];
    }

    /**
     * What is entered again or signed in to again by hand was never carried, and is no loss.
     *
     * @param  array<string, mixed>  $kind  of a proof
     */
    private static function kind(array $kind): ?string
    {
        $label = Kind::from($kind['kind'])->label();
        $gone = $kind['before'] - $kind['there'];

        return match (true) {
            $gone <= 0 || in_array($kind['outcome'], ['sign-in-again', 're-enter'], true) => null,
            $kind['there'] === 0 => "{$label}, all of it",
            default => "{$gone} of {$kind['before']} in {$label}",
        };
    }
}
