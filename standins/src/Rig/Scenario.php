<?php

declare(strict_types=1);

namespace Standins\Rig;

/** The devices that the rig ships with: phones and deck tablets of the ferry company Skerry Line. */
final class Scenario
{
    private const SCHEMAS = ['messages' => 14, 'photos' => 9];

    private const IN_CLOUD = [
        'photos',
        'messages',
        'contacts',
        'calendars',
        'notes',
        'app-data',
        'settings',
        'home-layout',
        'wallpaper',
    ];

    /** @return array<string, array<string, mixed>> by serial */
    public static function devices(): array
    {
        $band = ['id' => 'band-1', 'type' => 'fenn-band', 'osVersion' => '5.1.0'];
        $devices = [
            self::tarn([
                'serial' => 'SKL-0042',
                'hardwareId' => 'FN7-2',
                'modelName' => 'Fenn 7',
                'imei' => '352099110042013',
                'port' => '1',
                'photoCount' => 180,
                'note' => 'A deck phone without surprises.',
            ]),
            self::tarn([
                'serial' => 'SKL-0057',
                'hardwareId' => 'FN6-1',
                'modelName' => 'Fenn 6',
                'imei' => '352098400057012',
                'port' => '2',
                'photoCount' => 90,
                'note' => 'The older model, for which two builds of the line before are signed.',
            ]),
            self::tarn([
                'serial' => 'SKL-0063',
                'hardwareId' => 'FN7-3',
                'modelName' => 'Fenn 7',
                'imei' => '352099120063017',
                'port' => '3',
                'photoCount' => 60,
                'accessories' => [$band],
                'synced' => ['contacts', 'calendars', 'notes', 'saved-passwords', 'health'],
                'apps' => [
                    ...self::apps('8.0.0', '7.2.0'),
                    ['id' => 'watch-roster', 'name' => 'Watch Roster', 'minimumOs' => '9.0.0'],
                ],
                'cloudBackup' => [
                    'daysAgo' => 40,
                    'madeOn' => '8.6.0',
                    'kinds' => self::IN_CLOUD,
                ],
                'note' => 'Tied to a carrier, with a wearable and an app that need the newer version, and a cloud '
                    .'backup from before the upgrade.',
            ]),
            self::tarn([
                'serial' => 'SKT-0011',
                'hardwareId' => 'MR11-1',
                'modelName' => 'Mere 11',
                'imei' => null,
                'port' => '4',
                'photoCount' => 40,
                'note' => 'A deck tablet for which only a candidate of the older line is signed for erasing; the '
                    .'release of it goes on in place.',
            ]),
            self::lantern([
                'serial' => 'OST-2107',
                'hardwareId' => 'WK3-1',
                'modelName' => 'Wick 3',
                'imei' => '861143020021073',
                'port' => '5',
                'photoCount' => 50,
                'note' => 'The other vendor. A rollback counter stored in it shuts the oldest build out.',
            ]),
            self::tarn([
                'serial' => 'SKL-0071',
                'hardwareId' => 'FN7-2',
                'modelName' => 'Fenn 7',
                'imei' => '352099110071012',
                'port' => '6',
                'photoCount' => 30,
                'ownerLock' => 'on',
                'lockDelay' => 'on',
                'note' => 'Owner lock on, and its delay too: switching it off takes an hour, or the owner takes it '
                    .'off the account from elsewhere.',
            ]),
            self::tarn([
                'serial' => 'SKL-0088',
                'hardwareId' => 'FN7-2',
                'modelName' => 'Fenn 7',
                'imei' => '352099110088016',
                'port' => '7',
                'photoCount' => 30,
                'boxLabel' => 'Fenn 7, Nordic',
                'note' => 'The box says Nordic, the device says Atlantic: the box is wrong.',
            ]),
            self::lantern([
                'serial' => 'OST-2120',
                'hardwareId' => 'WKP-1',
                'modelName' => 'Wick Panel',
                'imei' => null,
                'port' => '8',
                'photoCount' => 30,
                'note' => 'A tablet of the other vendor; its older build has an announced end.',
            ]),
            self::tarn([
                'serial' => 'SKL-0094',
                'hardwareId' => 'FN7L-1',
                'modelName' => 'Fenn 7 Long',
                'imei' => '352099200094015',
                'port' => null,
                'photoCount' => 30,
                'batteryPercent' => 23,
                'charging' => false,
                'note' => 'Battery low, and not charging.',
            ]),
            self::tarn([
                'serial' => 'SKL-0102',
                'hardwareId' => 'FN7-1',
                'modelName' => 'Fenn 7',
                'imei' => '352099100102017',
                'port' => null,
                'photoCount' => 30,
                'version' => '10.0.0-beta.2',
                'build' => '10A5120',
                'betaEnrolled' => true,
                'storeSchemas' => ['messages' => 15, 'photos' => 10],
                'cloudBackup' => ['daysAgo' => 0, 'madeOn' => '9.3.0', 'kinds' => self::IN_CLOUD],
                'note' => 'In the beta programme: its stores of messages and photos are newer than the older lines '
                    .'read. Its owner’s cloud holds a backup from before.',
            ]),
            self::tarn([
                'serial' => 'SKL-0110',
                'hardwareId' => 'FN7-2',
                'modelName' => 'Fenn 7',
                'imei' => '352099110110011',
                'port' => null,
                'photoCount' => 30,
                'cloudBackup' => ['daysAgo' => 0, 'madeOn' => '9.3.0', 'kinds' => self::IN_CLOUD],
                'note' => 'Its cloud backup was made on the newer version: an older one refuses it.',
            ]),
            self::tarn([
                'serial' => 'SKL-0118',
                'hardwareId' => 'FN7-2',
                'modelName' => 'Fenn 7',
                'imei' => '352099110118014',
                'port' => null,
                'photoCount' => 30,
                'cloudBackup' => [
                    'daysAgo' => 0,
                    'madeOn' => '8.7.0',
                    'kinds' => ['photos', 'contacts', 'calendars', 'notes', 'settings'],
                    'share' => 0.6,
                ],
                'note' => 'Its cloud was full: what it fetches from there comes back in part.',
            ]),
            self::tarn([
                'serial' => 'SKL-0125',
                'hardwareId' => 'FN7-2',
                'modelName' => 'Fenn 7',
                'imei' => '352099110125019',
                'port' => null,
                'air' => true,
                'paired' => true,
                'photoCount' => 30,
                'note' => 'In the crew’s mess, and near by air only: it is backed up at night where its owner agrees.',
            ]),
        ];

        $fleet = array_map(self::tarn(...), Fleet::phones(max(0, (int) getenv('RIG_FLEET'))));

        return array_column([...$devices, ...$fleet], null, 'serial');
    }

    /**
     * @param  array<string, mixed>  $differs
     * @return array<string, mixed>
     */
    private static function tarn(array $differs): array
    {
        return $differs + [
            'vendor' => 'brightmere',
            'osLine' => 'tarn',
            'version' => '9.3.0',
            'build' => '9D55',
            'storeSchemas' => self::SCHEMAS,
            'rollbackCounter' => 3,
            'radioMinimum' => 10,
            'apps' => self::apps('8.0.0', '7.2.0'),
            'elsewhere' => [
                'version' => '8.7.0',
                'build' => '8G210',
                'rollbackIndex' => 3,
                'storeSchemas' => self::SCHEMAS,
            ],
            'keys' => [
                ['action' => 'press', 'target' => 'volume-up'],
                ['action' => 'press', 'target' => 'volume-down'],
                ['action' => 'hold', 'target' => 'power', 'seconds' => 12],
            ],
        ]
            + self::usual();
    }

    /**
     * @param  array<string, mixed>  $differs
     * @return array<string, mixed>
     */
    private static function lantern(array $differs): array
    {
        return $differs + [
            'vendor' => 'osterly',
            'osLine' => 'lantern',
            'version' => '5.1.0',
            'build' => 'L51.07',
            'storeSchemas' => ['messages' => 3],
            'rollbackCounter' => 7,
            'radioMinimum' => 2,
            'apps' => self::apps('4.5.0', '4.0.0'),
            'elsewhere' => [
                'version' => '5.0.0',
                'build' => 'L50.20',
                'rollbackIndex' => 7,
                'storeSchemas' => ['messages' => 3],
            ],
            'keys' => [
                ['action' => 'hold', 'target' => 'power', 'seconds' => 6],
                ['action' => 'hold', 'target' => 'volume-down', 'seconds' => 4],
            ],
        ]
            + self::usual();
    }

    /** @return array<string, mixed> */
    private static function usual(): array
    {
        return [
            'capacityBytes' => 64_000_000_000,
            'systemBytes' => 6_000_000_000,
            'batteryPercent' => 80,
            'charging' => true,
            'ownerLock' => 'off',
            'lockDelay' => 'off',
            'lockDelayEndsAt' => null,
            'betaEnrolled' => false,
            'accessories' => [],
            'synced' => ['saved-passwords', 'health'],
            'cloudBackup' => null,
            'cloudReturn' => null,
            'air' => false,
            'syncLate' => false,
            'mode' => 'normal',
            'paired' => false,
            'activated' => true,
            'setUp' => true,
            'nonce' => null,
            'operations' => [],
            'returns' => [],
            'bootable' => true,
            'wiped' => false,
            'hidden' => false,
            'ownerEntered' => false,
            'boxLabel' => null,
            'keysDone' => 0,
            'keysAt' => 0.0,
            'heard' => null,
            'lastPort' => null,
            'backAt' => null,
            'faults' => [],
            'fired' => [],
            'writes' => [],
        ];
    }

    /** @return list<array<string, string>> */
    private static function apps(string $tideTable, string $scanner): array
    {
        return [
            ['id' => 'tide-table', 'name' => 'Tide Table', 'minimumOs' => $tideTable],
            ['id' => 'ticket-scanner', 'name' => 'Ticket Scanner', 'minimumOs' => $scanner],
        ];
    }
}
