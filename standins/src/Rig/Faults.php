<?php

declare(strict_types=1);

namespace Standins\Rig;

use Random\Engine\Mt19937;
use Random\Randomizer;
use Standins\Http\Problem;

/**
 * What a device has been told to do wrong. A fault waits until its moment has come, happens once, and is then told
 * among those that have happened.
 */
final class Faults
{
    /** Those that happen at so much of a phase of some work. */
    public const AT_A_MOMENT = ['cable-out', 'work-fails'];

    /** Those that wait for an occasion. */
    public const AT_AN_OCCASION = [
        'not-recognised',
        'owner-lock-on',
        'consent-wanted',
        'passcode-wanted',
        'content-changes',
        'package-flipped',
        'disk-full',
        'return-refused',
        'item-dropped',
        'sync-late',
    ];

    /** Those that go on from now for some time. */
    public const FOR_A_TIME = ['link-flaps', 'battery-falls'];

    /** A byte of the newest backup of this device that lies on the shelf, at once. */
    public const ON_THE_SHELF = 'bag-flipped';

    /** @return list<string> */
    public static function kinds(): array
    {
        return [...self::AT_A_MOMENT, ...self::AT_AN_OCCASION, ...self::FOR_A_TIME, self::ON_THE_SHELF];
    }

    /**
     * @param  array<string, mixed>  $body  kind, and for its kind: work, phase, percent; seconds; perMinute. Or a seed.
     * @return array<string, mixed>
     */
    public static function read(array $body, float $now): array
    {
        $seed = $body['seed'] ?? null;
        $wanted = is_int($seed) ? self::drawn($seed) : $body;
        $kind = $wanted['kind'] ?? null;
        in_array($kind, self::kinds(), true)
            || throw new Problem(400, 'bad-field', 'Known kinds of faults: '.implode(', ', self::kinds()).'.');
        $fault = ['kind' => $kind, 'since' => $now];
        if (in_array($kind, self::AT_A_MOMENT, true)) {
            $work = $wanted['work'] ?? 'install';
            $phase = $wanted['phase'] ?? 'write';
            $percent = $wanted['percent'] ?? 50;
            (is_string($work)
                && is_string($phase)
                && is_numeric($percent)
                && isset(Timeline::PHASES[$work])
                && Timeline::moment($work, $phase, (float) $percent) !== null)
                || throw new Problem(400, 'bad-field', 'Such a fault names work, one of its phases, and a percentage.');
            $fault += ['work' => $work, 'phase' => $phase, 'percent' => max(0.0, min(100.0, (float) $percent))];
        }

        return $fault + [
            'seconds' => is_numeric($wanted['seconds'] ?? null) ? (float) $wanted['seconds'] : null,
            'perMinute' => (float) ($wanted['perMinute'] ?? 10),
        ];
    }

    /** @return array<string, mixed> the same for the same seed */
    private static function drawn(int $seed): array
    {
        $random = new Randomizer(new Mt19937($seed));
        $pick = static fn (array $of): mixed => $of[$random->getInt(0, count($of) - 1)];
        $kind = $pick([...self::AT_A_MOMENT, ...self::AT_A_MOMENT, ...self::AT_AN_OCCASION, 'link-flaps']);
        $work = $pick(['install', 'install', 'install', 'return']);

        return [
            'kind' => $kind,
            'work' => $work,
            'phase' => $pick(array_keys(Timeline::PHASES[$work])),
            'percent' => $random->getInt(1, 99),
            'seconds' => $kind === 'link-flaps' ? 20 : null,
        ];
    }

    /**
     * The first fault that comes due while the work runs from one moment to another.
     *
     * @param  list<array<string, mixed>>  $faults
     * @return array{int, float}|null its place in the list, and when
     */
    public static function due(array $faults, string $work, float $from, float $until): ?array
    {
        $first = null;
        foreach ($faults as $i => $fault) {
            $at =
                in_array($fault['kind'], self::AT_A_MOMENT, true) && $fault['work'] === $work
                    ? Timeline::moment($work, $fault['phase'], $fault['percent'])
                    : null;
            if ($at !== null && $at >= $from && $at <= $until && ($first === null || $at < $first[1])) {
                $first = [$i, $at];
            }
        }

        return $first;
    }
}
