<?php

declare(strict_types=1);

namespace Standins\Vendor;

/** The invented vendor Brightmere: its models, builds and signing windows. */
final class Scenario
{
    private const FENN_7 = ['FN7-1', 'FN7-2', 'FN7-3'];

    private const FENN_6 = ['FN6-1'];

    /** @return list<array<string, mixed>> */
    public static function models(): array
    {
        $keys = [
            ['action' => 'press', 'target' => 'volume-up'],
            ['action' => 'press', 'target' => 'volume-down'],
            ['action' => 'hold', 'target' => 'power', 'seconds' => 12],
        ];
        $model = static fn (string $id, string $name, string $variant, array $tac): array => [
            'hardwareId' => $id, 'name' => $name, 'variant' => $variant, 'form' => 'phone', 'osLine' => 'tarn',
            'tac' => $tac, 'recoverySequence' => $keys,
        ];

        return [
            $model('FN7-1', 'Fenn 7', 'Nordic', ['35209910']),
            $model('FN7-2', 'Fenn 7', 'Atlantic', ['35209911']),
            $model('FN7-3', 'Fenn 7', 'Carrier-tied', ['35209912']),
            $model('FN6-1', 'Fenn 6', 'Nordic', ['35209840']),
        ];
    }

    /**
     * Builds with a package for each family of models.
     *
     * @param  \DateTimeImmutable  $anchor  when this service was set up: announced ends lie ahead of it
     * @return list<array{build: array<string, mixed>, packages: list<array{hardwareIds: list<string>, mebibytes: int, signing: list<array<string, mixed>>}>}>
     */
    public static function builds(\DateTimeImmutable $anchor): array
    {
        $ahead = static fn (int $days): string => $anchor->modify("+{$days} days")->format('Y-m-d\T18:00:00\Z');

        return [
            self::entry('8.5.0', '8E172', 'release', '2026-01-19', 3, ['messages' => 14, 'photos' => 9], [
                [self::FENN_7, 22, [self::closed('2026-01-19', '2026-03-30')]],
                [self::FENN_6, 20, [self::closed('2026-01-19', '2026-03-30')]],
            ]),
            self::entry('8.6.0', '8F190', 'release', '2026-03-16', 3, ['messages' => 14, 'photos' => 9], [
                [self::FENN_7, 22, [self::closed('2026-03-16', '2026-06-01')]],
                [self::FENN_6, 20, [self::open('2026-03-16')]],
            ]),
            self::entry('8.7.0', '8G210', 'release', '2026-05-04', 3, ['messages' => 14, 'photos' => 9], [
                [self::FENN_7, 24, [['from' => '2026-05-04T17:00:00Z', 'until' => $ahead(20), 'announced' => true]]],
                [self::FENN_6, 20, [self::open('2026-05-04')]],
            ]),
            self::entry('9.1.0', '9B40', 'release', '2026-07-13', 3, ['messages' => 14, 'photos' => 9], [
                [self::FENN_7, 26, [self::closed('2026-07-13', '2026-09-28')]],
            ]),
            self::entry('9.2.0', '9C31', 'release', '2026-09-07', 3, ['messages' => 14, 'photos' => 9], [
                [self::FENN_7, 26, [self::closed('2026-09-07', '2026-11-02')]],
            ]),
            self::entry('9.3.0', '9D55', 'release', '2026-10-19', 3, ['messages' => 14, 'photos' => 9], [
                [self::FENN_7, 28, [self::open('2026-10-19')]],
                [self::FENN_6, 24, [self::open('2026-10-19')]],
            ]),
            self::entry('10.0.0-beta.2', '10A5120', 'beta', '2026-11-09', 3, ['messages' => 15, 'photos' => 10], [
                [self::FENN_7, 30, [self::open('2026-11-09')]],
            ]),
        ];
    }

    /** @return list<array<string, string>> */
    public static function accessories(): array
    {
        return [['type' => 'fenn-band', 'osVersion' => '>=5.0', 'needsHost' => '>=9.0']];
    }

    /**
     * @param  array<string, int>  $schemas
     * @param  list<array{list<string>, int, list<array<string, mixed>>}>  $packages
     * @return array{build: array<string, mixed>, packages: list<array{hardwareIds: list<string>, mebibytes: int, signing: list<array<string, mixed>>}>}
     */
    private static function entry(string $version, string $build, string $channel, string $released, int $rollback, array $schemas, array $packages): array
    {
        return [
            'build' => [
                'osLine' => 'tarn', 'version' => $version, 'build' => $build, 'channel' => $channel,
                'releasedAt' => "{$released}T17:00:00Z", 'rollbackIndex' => $rollback, 'radioLevel' => 12,
                'hostAgentMinimum' => '4.2', 'eraseInstall' => true, 'inPlaceFrom' => '<'.$version, 'stepDownFrom' => null,
                'storeSchemas' => $schemas,
            ],
            'packages' => array_map(static fn (array $p): array => ['hardwareIds' => $p[0], 'mebibytes' => $p[1], 'signing' => $p[2]], $packages),
        ];
    }

    /** @return array<string, mixed> */
    private static function closed(string $from, string $until): array
    {
        return ['from' => "{$from}T17:00:00Z", 'until' => "{$until}T17:00:00Z", 'announced' => false];
    }

    /** @return array<string, mixed> */
    private static function open(string $from): array
    {
        return ['from' => "{$from}T17:00:00Z", 'until' => null, 'announced' => false];
    }
}
