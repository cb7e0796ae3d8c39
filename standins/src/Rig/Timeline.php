<?php

declare(strict_types=1);

namespace Standins\Rig;

/** How long work on a device runs, phase by phase, in seconds of the rig's time. */
final class Timeline
{
    public const PHASES = [
        'pair' => ['asking' => 2.0],
        'enter-recovery' => ['recognising' => 3.0],
        'leave-recovery' => ['restart' => 4.0],
        'install' => ['extract' => 6.0, 'verify' => 4.0, 'write' => 22.0, 'restart' => 9.0],
        'restart' => ['restart' => 6.0],
        'activate' => ['activate' => 3.0],
        'set-up' => ['set-up' => 4.0],
        'return' => ['apply' => 5.0, 'restart' => 8.0],
        'cloud-return' => ['fetch' => 12.0, 'restart' => 8.0],
    ];

    /** @return array{phase: string, progress: float, begun: list<string>, over: bool} where the work stands */
    public static function at(string $kind, float $elapsed): array
    {
        $phases = self::PHASES[$kind];
        $whole = array_sum($phases);
        $begun = [];
        $start = 0.0;
        foreach ($phases as $phase => $seconds) {
            if ($elapsed < $start) {
                break;
            }
            $begun[] = $phase;
            $start += $seconds;
        }

        return [
            'phase' => $begun === [] ? (string) array_key_first($phases) : $begun[count($begun) - 1],
            'progress' => min(1.0, max(0.0, $elapsed / $whole)),
            'begun' => $begun,
            'over' => $elapsed >= $whole,
        ];
    }

    /**
     * @return float|null the seconds from the beginning of the work to so much of a phase; null where the work has no
     * such phase
     */
    public static function moment(string $kind, string $phase, float $percent): ?float
    {
        $start = 0.0;
        foreach (self::PHASES[$kind] as $name => $seconds) {
            if ($name === $phase) {
                return $start + $seconds * $percent / 100;
            }
            $start += $seconds;
        }

        return null;
    }

    public static function mustNotBeDisturbed(string $kind, string $phase): bool
    {
        return ($kind === 'install' && $phase !== 'restart')
            || ($kind === 'return' && $phase === 'apply')
            || ($kind === 'cloud-return' && $phase === 'fetch');
    }
}
