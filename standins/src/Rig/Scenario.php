<?php

declare(strict_types=1);

namespace Standins\Rig;

/** The devices that the rig ships with: phones and deck tablets of the ferry company Skerry Line. */
final class Scenario
{
    private const SCHEMAS = ['messages' => 14, 'photos' => 9];

    /** @return array<string, array<string, mixed>> by serial */
    public static function devices(): array
    {
        $band = ['id' => 'band-1', 'type' => 'fenn-band', 'osVersion' => '5.1.0'];
        $devices = [
            self::tarn(['serial' => 'SKL-0042', 'hardwareId' => 'FN7-2', 'modelName' => 'Fenn 7', 'imei' => '352099110042013', 'port' => '1', 'photoCount' => 180]),
            self::tarn(['serial' => 'SKL-0057', 'hardwareId' => 'FN6-1', 'modelName' => 'Fenn 6', 'imei' => '352098400057012', 'port' => '2', 'photoCount' => 90]),
            // tied to a carrier, with a wearable on a newer version
            self::tarn(['serial' => 'SKL-0063', 'hardwareId' => 'FN7-3', 'modelName' => 'Fenn 7', 'imei' => '352099120063017', 'port' => '3', 'photoCount' => 60, 'accessories' => [$band], 'synced' => ['contacts', 'calendars', 'notes', 'saved-passwords', 'health']]),
            // a deck tablet for which only a candidate of the older line is signed for erasing
            self::tarn(['serial' => 'SKT-0011', 'hardwareId' => 'MR11-1', 'modelName' => 'Mere 11', 'imei' => null, 'port' => '4', 'photoCount' => 40]),
            // the other vendor, whose device stores a rollback counter that shuts the oldest build out
            self::lantern(['serial' => 'OST-2107', 'hardwareId' => 'WK3-1', 'modelName' => 'Wick 3', 'imei' => '861143020021073', 'port' => '5', 'photoCount' => 50]),
        ];

        return array_column($devices, null, 'serial');
    }

    /**
     * @param  array<string, mixed>  $differs
     * @return array<string, mixed>
     */
    private static function tarn(array $differs): array
    {
        return $differs + [
            'vendor' => 'brightmere', 'osLine' => 'tarn', 'version' => '9.3.0', 'build' => '9D55', 'storeSchemas' => self::SCHEMAS,
            'rollbackCounter' => 3, 'radioMinimum' => 10, 'apps' => self::apps('8.0.0', '7.2.0'),
        ] + self::usual();
    }

    /**
     * @param  array<string, mixed>  $differs
     * @return array<string, mixed>
     */
    private static function lantern(array $differs): array
    {
        return $differs + [
            'vendor' => 'osterly', 'osLine' => 'lantern', 'version' => '5.1.0', 'build' => 'L51.07', 'storeSchemas' => ['messages' => 3],
            'rollbackCounter' => 7, 'radioMinimum' => 2, 'apps' => self::apps('4.5.0', '4.0.0'),
        ] + self::usual();
    }

    /** @return array<string, mixed> */
    private static function usual(): array
    {
        return [
            'capacityBytes' => 64_000_000_000, 'systemBytes' => 6_000_000_000,
            'batteryPercent' => 80, 'charging' => true, 'ownerLock' => 'off', 'lockDelay' => 'off', 'lockDelayEndsAt' => null,
            'betaEnrolled' => false,
            'accessories' => [],
            'synced' => ['saved-passwords', 'health'],
            'mode' => 'normal', 'paired' => false, 'activated' => true, 'setUp' => true,
            'nonce' => null, 'operations' => [],
        ];
    }

    /** @return list<array<string, string>> */
    private static function apps(string $tideTable, string $scanner): array
    {
        return [['id' => 'tide-table', 'name' => 'Tide Table', 'minimumOs' => $tideTable], ['id' => 'ticket-scanner', 'name' => 'Ticket Scanner', 'minimumOs' => $scanner]];
    }
}
