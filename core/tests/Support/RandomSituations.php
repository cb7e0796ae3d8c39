<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Support;

/** Small random catalogues and situations, the same for the same seed, that reach into the corners of the rules. */
final class RandomSituations
{
    use Draws;

    private const VERSIONS = [
        '7.4.0',
        '8.0.0',
        '8.1.0',
        '8.1.1',
        '9.0.0-rc.1',
        '9.0.0',
        '9.1.0',
        '9.2.0',
        '10.0.0-beta.1',
        '10.0.0',
    ];

    private const KINDS = [
        'photos',
        'messages',
        'contacts',
        'recordings',
        'app-data',
        'health',
        'payment-cards',
        'sign-ins',
        'esim',
        'accessory-pairing',
        'saved-passwords',
    ];

    public function __construct(int $seed)
    {
        $this->seed($seed);
    }

    /** @return array{non-empty-list<array<string, mixed>>, array<string, mixed>} catalogues and situation */
    public function next(): array
    {
        $builds = array_map($this->build(...), $this->some(self::VERSIONS, 3, 7));
        $installed = $builds[$this->int(0, count($builds) - 1)];

        return [
            $this->catalogues($builds),
            Sample::situation(
                [
                    'hardwareId' => match ($this->int(0, 30)) {
                        0 => null,
                        1 => 'FN7-1',
                        default => 'FN7-2',
                    },
                    'version' => $installed['version'],
                    'build' => $this->chance(80) ? $installed['build'] : 'OTHER',
                    'rollbackCounter' => $this->chance(15) ? null : $this->int(1, 2),
                    'radioMinimum' => $this->chance(20) ? null : $this->int(0, 1),
                    'kinds' => array_map($this->stock(...), $this->some(self::KINDS, 0, 6)),
                    ...$this->chance(15) ? ['dataOnDevice' => false, 'bootable' => $this->chance(50)] : [],
                ],
                [
                    'backups' => array_map($this->backup(...), range(1, $this->int(1, 3))),
                    'sideExports' => $this->chance(40) ? [['kind' => 'messages', 'takenAt' => $this->time()]] : [],
                    'planned' => [
                        'backup' => ['plain', 'encrypted', 'none'][$this->int(0, 2)],
                        'sideExports' => $this->chance(25) ? ['contacts'] : [],
                    ],
                    'goal' => $this->goal($builds[$this->int(0, count($builds) - 1)]['version']),
                    'bench' => [
                        'linkBytesPerSecond' => 6_100_000,
                        'backupBytesPerSecond' => 30_000_000,
                        'returnBytesPerSecond' => 30_000_000,
                        'hostAgent' => $this->chance(85) ? '4.3' : null,
                        'freeDiskBytes' => 200_000_000_000,
                    ],
                ] + ($this->chance(15) ? ['startsAt' => sprintf('2026-11-20T09:%02d:00Z', $this->int(1, 59))] : []),
            ),
        ];
    }

    /**
     * Sometimes two vendors speak for the line, of builds of their own and of some that both carry.
     *
     * @param  list<array<string, mixed>>  $builds
     * @return non-empty-list<array<string, mixed>>
     */
    private function catalogues(array $builds): array
    {
        $fresh = fn (): string => $this->chance(6) ? '2026-11-20T08:59:59Z' : '2026-11-20T20:00:00Z';
        if ($this->chance(70)) {
            return [Sample::catalogue($builds, ['freshUntil' => $fresh()])];
        }
        $cut = $this->int(0, count($builds) - 1);
        $theirs = array_map(fn (array $b): array => $this->chance(50) ? $this->repackaged($b) : $b, $builds);

        return [
            Sample::catalogue(array_slice($builds, 0, $cut + 1), ['freshUntil' => $fresh()]),
            Sample::catalogue(array_slice($theirs, $this->int(0, $cut)), [
                'vendor' => ['id' => 'brightmere-east', 'name' => 'Brightmere East'],
                'freshUntil' => $this->chance(25) ? '2026-11-20T08:59:59Z' : '2026-11-20T20:00:00Z',
                'issuedAt' => '2026-11-20T07:00:00Z',
                'models' => [],
                'accessories' => [],
            ]),
        ];
    }

    /**
     * @param  array<string, mixed>  $build
     * @return array<string, mixed>
     */
    private function repackaged(array $build): array
    {
        $build['packages'][0]['sha256'] = hash('sha256', $build['build'].' again');
        $build['packages'][0]['bytes'] = $this->int(1, 6) * 1_000_000_000;
        $build['packages'][0]['signing'] = $this->signing();

        return $build;
    }

    /** @return list<array<string, mixed>> */
    private function signing(): array
    {
        return array_map(
            static fn (array $w): array => ['from' => $w[0], 'until' => $w[1], 'announced' => false],
            $this->windows(),
        );
    }

    /** @return array<string, mixed> */
    private function build(string $version): array
    {
        $channel = str_contains($version, 'beta') ? 'beta' : (str_contains($version, 'rc') ? 'candidate' : 'release');
        $label = 'B'.str_replace(['.', '-'], '', $version);
        $build = Sample::build($version, $label, $this->windows(), [
            'channel' => $channel,
            'releasedAt' => sprintf('2026-%02d-01T00:00:00Z', $this->int(1, 10)),
            'rollbackIndex' => $this->chance(80) ? 2 : $this->int(1, 3),
            'radioLevel' => $this->int(0, 1) + ($this->chance(85) ? 1 : 0),
            'eraseInstall' => $this->chance(60),
            'inPlaceFrom' => $this->chance(75)
                ? '>='.$this->pick(['7.0.0', '8.0.0', '9.0.0']).' <'.$this->pick(['9.0.0', '10.0.0', '11.0.0'])
                : null,
            'hostAgentMinimum' => $this->chance(12) ? $this->pick(['4.3', '4.4']) : null,
            'stepDownFrom' => $this->chance(35)
                ? '>='.$this->pick(['8.0.0', '9.0.0']).' <'.$this->pick(['9.0.0', '10.0.0', '11.0.0'])
                : null,
            'storeSchemas' => ['messages' => $this->int(13, 15), 'photos' => $this->int(8, 9)],
        ]);
        $build['packages'][0]['bytes'] = $this->int(1, 6) * 1_000_000_000;
        $build['packages'][0]['hardwareIds'] = $this->chance(90) ? ['FN7-2'] : ['FN7-1', 'FN7-2'];
        if ($this->chance(15)) {
            $build['packages'][] = $this->repackaged($build)['packages'][0];
        }

        return $build;
    }

    /**
     * Open, closed, closing within hours or opening within them; one that touches the next, or overlaps it.
     *
     * @return list<array{string, string|null}>
     */
    private function windows(): array
    {
        $soon = fn (): string => sprintf('2026-11-20T%02d:%02d:00Z', $this->int(9, 10), $this->int(1, 59));

        return match ($this->int(0, 12)) {
            0 => [],
            1 => [['2026-05-01T00:00:00Z', '2026-09-01T00:00:00Z']],
            2, 3, 8 => [['2026-05-01T00:00:00Z', $soon()]],
            4 => [[$soon(), null]],
            5 => [
                ['2026-11-20T09:30:00Z', $this->chance(50) ? null : '2026-11-20T10:30:00Z'],
                ['2026-05-01T00:00:00Z', '2026-11-20T09:30:00Z'],
            ],
            6 => [['2026-05-01T00:00:00Z', '2026-11-20T09:40:00Z'], ['2026-11-20T09:10:00Z', '2026-11-20T11:10:00Z']],
            7 => [['2026-05-01T00:00:00Z', '2026-09-01T00:00:00Z'], ['2026-12-01T00:00:00Z', null]],
            default => [['2026-05-01T00:00:00Z', null]],
        };
    }

    /** @return array<string, mixed> */
    private function stock(string $kind): array
    {
        return [
            'kind' => $kind,
            'items' => $this->chance(12) ? 0 : $this->int(1, 900),
            'bytes' => $this->int(1, 4) * 1_000_000_000,
            'lastChangedAt' => $this->chance(80) ? $this->time() : null,
            'syncedAt' => $this->chance(30) ? $this->time() : null,
        ];
    }

    /** @return array<string, mixed> */
    private function backup(int $number): array
    {
        $madeOn = $this->pick(['7.4.0', '8.1.0', '9.0.0', '9.2.0', '10.0.0']);
        $encrypted = $this->chance(50);

        return [
            'id' => "b-{$number}",
            'where' => $this->chance(30) ? 'cloud' : 'bag',
            'takenAt' => $this->time(),
            'madeOn' => $madeOn,
            'declaredVersion' => $this->chance(20) ? $this->pick(['7.4.0', '8.1.0']) : $madeOn,
            'encrypted' => $encrypted,
            'passphraseProven' => $this->chance(70),
            'verified' => $this->chance(80),
            'kinds' => $this->some(['photos', 'messages', 'contacts', 'recordings', 'app-data', 'health'], 1, 6),
            'storeSchemas' => ['messages' => $this->int(13, 15)],
        ];
    }

    /**
     * Mostly something that a build could fulfil.
     *
     * @return array<string, mixed>
     */
    private function goal(string $version): array
    {
        return match ($this->int(0, 6)) {
            0 => ['exact' => $this->pick(self::VERSIONS)],
            1 => ['newestInMajor' => $this->int(7, 10)],
            2 => ['newestBelow' => $this->pick(['8.1.0', '9.0.0', '9.1.0', '10.0.0'])],
            3 => ['newestBefore' => sprintf('2026-%02d-15T00:00:00Z', $this->int(2, 10))],
            4 => ['newestInMajor' => (int) $version],
            default => ['exact' => $version],
        };
    }

    private function time(): string
    {
        return sprintf('2026-11-%02dT%02d:00:00Z', $this->int(10, 19), $this->int(0, 23));
    }
}
