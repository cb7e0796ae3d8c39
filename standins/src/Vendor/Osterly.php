<?php

declare(strict_types=1);

namespace Standins\Vendor;

use Random\Randomizer;

/** Phones Wick 3 and tablets Wick Panel on the OS line Lantern: no step-down in place at all, and a rollback floor. */
final readonly class Osterly extends Scenario
{
    private const WICK = ['WK3-1', 'WK3-2'];

    private const PANEL = ['WKP-1'];

    public function name(): string
    {
        return 'Osterly';
    }

    public function models(): array
    {
        $model = static fn (
            string $id,
            string $name,
            string $variant,
            string $form,
            array $tac,
            array $where,
        ): array => [
            'hardwareId' => $id,
            'name' => $name,
            'variant' => $variant,
            'form' => $form,
            'osLine' => 'lantern',
            'tac' => $tac,
            'recoverySequence' => [
                ['action' => 'hold', 'target' => 'power', 'seconds' => 6],
                ['action' => 'hold', 'target' => 'volume-down', 'seconds' => 4],
            ],
            'keys' => [
                ['name' => 'volume-up', 'edge' => 'right', 'at' => 0.2],
                ['name' => 'volume-down', 'edge' => 'right', 'at' => 0.27],
                ['name' => 'power', 'edge' => 'right', 'at' => 0.4],
            ],
            'sold' => ['where' => $where, 'carrierTied' => false],
        ];

        return [
            $model('WK3-1', 'Wick 3', 'Nordic', 'phone', ['86114302'], ['Northern islands']),
            $model('WK3-2', 'Wick 3', 'Atlantic', 'phone', ['86114303'], ['Western islands', 'Overseas']),
            $model('WK2-1', 'Wick 2', 'Nordic', 'phone', ['86114270'], ['Northern islands']),
            $model('WKP-1', 'Wick Panel', 'Nordic', 'tablet', [], ['Northern islands', 'Mainland']),
        ];
    }

    public function builds(): array
    {
        return [
            self::lantern('4.6.0', 'L46.11', '2026-02-02', 6, [
                [self::WICK, 20, [self::open('2026-02-02')]],
                [self::PANEL, 20, [self::open('2026-02-02')]],
            ]),
            self::lantern('5.0.0', 'L50.20', '2026-06-08', 7, [
                [self::WICK, 22, [self::open('2026-06-08')]],
                [self::PANEL, 22, [$this->ending('2026-06-08', 6)]],
            ]),
            self::lantern('5.1.0', 'L51.07', '2026-10-26', 7, [
                [self::WICK, 24, [self::open('2026-10-26')]],
                [self::PANEL, 24, [self::open('2026-10-26')]],
            ]),
        ];
    }

    /** It is in no hurry: windows stay open for half a year, and a few have never closed. */
    public function past(): array
    {
        $habit = static fn (Randomizer $chance, bool $isLastOfMajor): int => $chance->getInt(1, 6) === 1
            ? 2000
            : $chance->getInt(150, $isLastOfMajor ? 280 : 210);
        $usual = [
            'osLine' => 'lantern',
            'rollbackIndex' => 4,
            'radioLevel' => 2,
            'hostAgentMinimum' => '4.0',
            'eraseInstall' => true,
            'stepDownFrom' => null,
            'storeSchemas' => ['messages' => 3],
        ];
        $names = [];
        foreach ([[1, 4], [2, 5], [3, 5]] as [$major, $most]) {
            for ($minor = 0; $minor <= $most; $minor++) {
                $names[] = ["{$major}.{$minor}.0", "L{$major}{$minor}.".(10 + 3 * $minor), 'release'];
            }
        }

        return (new PastBuilds(['WK2-1'], '2022-12-05', '2025-12-08', $habit, $usual, 11))
            ->builds($names, '2026-11-01');
    }

    public function accessories(): array
    {
        return [];
    }

    /**
     * @param  list<array{list<string>, int, list<array<string, mixed>>}>  $packages
     * @return array{build: array<string, mixed>, packages: list<array{hardwareIds: list<string>, mebibytes: int,
     *   signing: list<array<string, mixed>>}>}
     */
    private static function lantern(
        string $version,
        string $build,
        string $released,
        int $rollbackIndex,
        array $packages,
    ): array {
        return self::entry(
            [
                'osLine' => 'lantern',
                'version' => $version,
                'build' => $build,
                'channel' => 'release',
                'releasedAt' => $released,
                'rollbackIndex' => $rollbackIndex,
                'radioLevel' => 2,
                'hostAgentMinimum' => '4.0',
                'eraseInstall' => true,
                'inPlaceFrom' => '<'.$version,
                'stepDownFrom' => null,
                'storeSchemas' => ['messages' => 3],
            ],
            $packages,
        );
    }
}
