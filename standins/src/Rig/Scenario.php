<?php

declare(strict_types=1);

namespace Standins\Rig;

/** The devices that the rig ships with: phones of the ferry company Skerry Line. */
final class Scenario
{
    /** @return array<string, array<string, mixed>> by serial */
    public static function devices(): array
    {
        return [
            'SKL-0042' => self::phone('SKL-0042', 'FN7-2', 'Fenn 7', '352099110042013', '1', 180),
            'SKL-0057' => self::phone('SKL-0057', 'FN6-1', 'Fenn 6', '352098400057012', '2', 90),
        ];
    }

    /** @return array<string, mixed> */
    private static function phone(string $serial, string $hardwareId, string $name, string $imei, string $port, int $photos): array
    {
        return [
            'serial' => $serial, 'imei' => $imei, 'hardwareId' => $hardwareId, 'modelName' => $name, 'osLine' => 'tarn',
            'version' => '9.3.0', 'build' => '9D55', 'storeSchemas' => ['messages' => 14, 'photos' => 9],
            'rollbackCounter' => 3, 'radioMinimum' => 10, 'capacityBytes' => 64_000_000_000, 'systemBytes' => 6_000_000_000,
            'batteryPercent' => 80, 'charging' => true, 'ownerLock' => 'off', 'lockDelay' => 'off', 'lockDelayEndsAt' => null,
            'betaEnrolled' => false,
            'accessories' => [],
            'apps' => [
                ['id' => 'tide-table', 'name' => 'Tide Table', 'minimumOs' => '8.0.0'],
                ['id' => 'ticket-scanner', 'name' => 'Ticket Scanner', 'minimumOs' => '7.2.0'],
            ],
            'synced' => ['saved-passwords', 'health'],
            'port' => $port, 'mode' => 'normal', 'paired' => false, 'activated' => true, 'setUp' => true,
            'nonce' => null, 'operations' => [], 'photoCount' => $photos,
        ];
    }
}
