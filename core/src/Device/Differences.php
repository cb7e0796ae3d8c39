<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

/** What was said of a device before it was plugged in, against what it tells itself. */
final class Differences
{
    private const NAMES = [
        'serial' => 'Serial',
        'modelName' => 'Model',
        'hardwareId' => 'Hardware id',
        'osLine' => 'OS line',
        'version' => 'Version',
        'build' => 'Build',
        'imei' => 'IMEI',
    ];

    /**
     * @param  array<string, string|null>  $said  null or "unknown" where nobody had said
     * @param  array<string, string|null>  $read
     * @return list<Difference>
     */
    public static function between(array $said, array $read): array
    {
        $found = [];
        foreach (self::NAMES as $field => $name) {
            $before = $said[$field] ?? null;
            $after = $read[$field] ?? null;
            if (
                $before !== null
                && $before !== 'unknown'
                && $after !== null
                && mb_strtolower($before) !== mb_strtolower($after)
            ) {
                $found[] = new Difference($field, $name, $before, $after);
            }
        }

        return $found;
    }
}
