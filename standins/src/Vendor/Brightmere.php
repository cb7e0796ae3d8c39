<?php

declare(strict_types=1);

namespace Standins\Vendor;

use Random\Randomizer;

/** Phones Fenn 6, Fenn 7 and Fenn 7 Long, tablets Mere 11, on the OS line Tarn. */
final readonly class Brightmere extends Scenario
{
    private const FENN_6 = ['FN6-1'];

    private const FENN_7 = ['FN7-1', 'FN7-2', 'FN7-3'];

    private const LONG = ['FN7L-1', 'FN7L-2'];

    private const MERE = ['MR11-1', 'MR11-3'];

    private const SCHEMAS = ['messages' => 14, 'photos' => 9];

    public function name(): string
    {
        return 'Brightmere';
    }

    public function models(): array
    {
        $keys = [
            ['action' => 'press', 'target' => 'volume-up'],
            ['action' => 'press', 'target' => 'volume-down'],
            ['action' => 'hold', 'target' => 'power', 'seconds' => 12],
        ];
        $model = static fn (
            string $id,
            string $name,
            string $variant,
            array $tac,
            array $where,
            bool $tied,
            string $form = 'phone',
        ): array => [
            'hardwareId' => $id,
            'name' => $name,
            'variant' => $variant,
            'form' => $form,
            'osLine' => 'tarn',
            'tac' => $tac,
            'recoverySequence' => $keys,
            'keys' => $form === 'phone' ? [
                ['name' => 'volume-up', 'edge' => 'left', 'at' => 0.24],
                ['name' => 'volume-down', 'edge' => 'left', 'at' => 0.34],
                ['name' => 'power', 'edge' => 'right', 'at' => 0.3],
            ] : [
                ['name' => 'volume-up', 'edge' => 'top', 'at' => 0.12],
                ['name' => 'volume-down', 'edge' => 'top', 'at' => 0.22],
                ['name' => 'power', 'edge' => 'top', 'at' => 0.88],
            ],
            'sold' => ['where' => $where, 'carrierTied' => $tied],
        ];
        $north = ['Northern islands', 'Mainland'];
        $west = ['Western islands', 'Overseas'];

        return [
            $model('FN7-1', 'Fenn 7', 'Nordic', ['35209910'], $north, false),
            $model('FN7-2', 'Fenn 7', 'Atlantic', ['35209911'], $west, false),
            $model('FN7-3', 'Fenn 7', 'Carrier-tied', ['35209912'], ['Mainland', 'Western islands'], true),
            $model('FN6-1', 'Fenn 6', 'Nordic', ['35209840'], $north, false),
            $model('FN7L-1', 'Fenn 7 Long', 'Nordic', ['35209920'], $north, false),
            $model('FN7L-2', 'Fenn 7 Long', 'Atlantic', ['35209921'], $west, false),
            $model('FN5-1', 'Fenn 5', 'Nordic', ['35209770'], $north, false),
            $model('MR11-1', 'Mere 11', 'Nordic', [], $north, false, 'tablet'),
            $model('MR11-3', 'Mere 11', 'Carrier-tied', ['35209713'], ['Mainland'], true, 'tablet'),
        ];
    }

    public function builds(): array
    {
        return [
            self::tarn('8.5.0', '8E172', '2026-01-19', [
                [self::FENN_7, 22, [self::closed('2026-01-19', '2026-03-30')]],
                [self::FENN_6, 20, [self::closed('2026-01-19', '2026-03-30')]],
            ]),
            self::tarn('8.6.0', '8F190', '2026-03-16', [
                [self::FENN_7, 22, [self::closed('2026-03-16', '2026-06-01')]],
                [self::FENN_6, 20, [self::open('2026-03-16')]],
                [self::MERE, 22, [self::closed('2026-03-16', '2026-07-13')]],
            ]),
            self::tarn('8.7.0', '8G210', '2026-05-04', [
                [self::FENN_7, 24, [$this->ending('2026-05-04', 20)]],
                [self::FENN_6, 20, [self::open('2026-05-04')]],
                [self::LONG, 24, [$this->ending('2026-05-04', 3)]],
                [self::MERE, 24, [self::closed('2026-05-04', '2026-10-05')]],
            ]),
            self::tarn(
                '8.8.0-rc.1',
                '8H88',
                '2026-10-12',
                [[self::MERE, 24, [self::open('2026-10-12')]]],
                ['channel' => 'candidate'],
            ),
            self::tarn(
                '8.8.0',
                '8H95',
                '2026-11-02',
                [[self::MERE, 24, [self::open('2026-11-02')]]],
                ['eraseInstall' => false, 'inPlaceFrom' => '>=8.0 <=8.8.0-rc.9'],
            ),
            self::tarn('9.1.0', '9B40', '2026-07-13', [[self::FENN_7, 26, [self::closed('2026-07-13', '2026-09-28')]]]),
            self::tarn('9.2.0', '9C31', '2026-09-07', [
                [self::FENN_7, 26, [self::closed('2026-09-07', '2026-11-02')]],
                [self::LONG, 26, [self::closed('2026-09-07', '2026-10-12'), self::open('2026-11-09')]],
            ], ['stepDownFrom' => '>=9.3 <9.4']),
            self::tarn('9.3.0', '9D55', '2026-10-19', [
                [self::FENN_7, 28, [self::open('2026-10-19')]],
                [self::FENN_6, 24, [self::open('2026-10-19')]],
                [self::LONG, 28, [self::open('2026-10-19')]],
                [self::MERE, 28, [self::open('2026-10-19')]],
            ]),
            self::tarn(
                '10.0.0-beta.2',
                '10A5120',
                '2026-11-09',
                [[self::FENN_7, 30, [self::open('2026-11-09')]]],
                ['channel' => 'beta', 'storeSchemas' => ['messages' => 15, 'photos' => 10]],
            ),
        ];
    }

    /** Most windows are closed three to five weeks after the next build, some are forgotten for most of a year. */
    public function past(): array
    {
        $habit = static fn (Randomizer $chance, bool $isLastOfMajor): int => match (true) {
            $isLastOfMajor => $chance->getInt(110, 150),
            $chance->getInt(1, 5) === 1 => $chance->getInt(150, 300),
            default => $chance->getInt(20, 36),
        };
        $usual = [
            'osLine' => 'tarn',
            'rollbackIndex' => 2,
            'radioLevel' => 8,
            'hostAgentMinimum' => '4.0',
            'eraseInstall' => true,
            'stepDownFrom' => null,
            'storeSchemas' => self::SCHEMAS,
        ];
        $names = [];
        foreach ([[4, 4, 6], [5, 0, 6], [6, 0, 6], [7, 0, 4]] as [$major, $from, $until]) {
            for ($minor = $from; $minor <= $until; $minor++) {
                $letter = chr(65 + $minor);
                if ($minor % 3 === 0) {
                    $names[] = ["{$major}.{$minor}.0-beta.1", "{$major}{$letter}5".(10 + $minor), 'beta'];
                }
                $names[] = ["{$major}.{$minor}.0", "{$major}{$letter}".(40 + 7 * $minor), 'release'];
            }
        }

        return (new PastBuilds(['FN5-1'], '2022-11-07', '2025-11-24', $habit, $usual, 7))->builds($names, '2026-11-01');
    }

    public function accessories(): array
    {
        return [['type' => 'fenn-band', 'osVersion' => '>=5.0', 'needsHost' => '>=9.0']];
    }

    /**
     * @param  list<array{list<string>, int, list<array<string, mixed>>}>  $packages
     * @param  array<string, mixed>  $differs
     * @return array{build: array<string, mixed>, packages: list<array{hardwareIds: list<string>, mebibytes: int,
     *   signing: list<array<string, mixed>>}>}
     */
    private static function tarn(
        string $version,
        string $build,
        string $released,
        array $packages,
        array $differs = [],
    ): array {
        return self::entry(
            $differs + [
                'osLine' => 'tarn',
                'version' => $version,
                'build' => $build,
                'channel' => 'release',
                'releasedAt' => $released,
                'rollbackIndex' => 3,
                'radioLevel' => 12,
                'hostAgentMinimum' => '4.2',
                'eraseInstall' => true,
                'inPlaceFrom' => '<'.$version,
                'stepDownFrom' => null,
                'storeSchemas' => self::SCHEMAS,
            ],
            $packages,
        );
    }
}
