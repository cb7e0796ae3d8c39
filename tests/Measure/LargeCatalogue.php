<?php

declare(strict_types=1);

namespace Tests\Measure;

use JadeStep\Core\Tests\Support\Sample;

/** A made catalogue of many models and builds with a package for each pair, seeded, and situations for it. */
final readonly class LargeCatalogue
{
    private function __construct(private int $models, private int $builds, private \Random\Randomizer $random)
    {
    }

    public static function of(int $models, int $builds, int $seed = 7): self
    {
        return new self($models, $builds, new \Random\Randomizer(new \Random\Engine\Mt19937($seed)));
    }

    /** @return array<string, mixed> */
    public function catalogue(): array
    {
        $list = [];
        for ($i = 0; $i < $this->builds; $i++) {
            $version = (7 + intdiv($i, 25)).'.'.intdiv($i % 25, 5).'.'.($i % 5);
            $candidate = $i % 9 === 0;
            $list[] = Sample::build(
                $version.($candidate ? '-rc.1' : ''),
                "B{$i}",
                [],
                [
                    'channel' => $candidate ? 'candidate' : 'release',
                    'releasedAt' => sprintf('20%02d-%02d-01T00:00:00Z', 20 + intdiv($i, 18), 1 + ($i % 12)),
                    'rollbackIndex' => 3,
                    'radioLevel' => 12,
                    'eraseInstall' => $i % 4 !== 0,
                    'inPlaceFrom' => '>='.(6 + intdiv($i, 25)).'.0 <'.explode('-', $version)[0],
                    'stepDownFrom' => $i % 6 === 0 ? '>='.(7 + intdiv($i, 25)).'.0 <'.(8 + intdiv($i, 25)).'.0' : null,
                    'storeSchemas' => ['messages' => 12 + intdiv($i, 30)],
                    'packages' => $this->packages($i),
                ],
            );
        }

        return Sample::catalogue($list, [
            'models' => array_map(
                static fn (int $m): array => [
                    'hardwareId' => "M{$m}",
                    'name' => 'Fenn '.intdiv($m, 3),
                    'variant' => "V{$m}",
                    'form' => 'phone',
                    'osLine' => 'tarn',
                    'tac' => [],
                    'recoverySequence' => [],
                ],
                range(1, $this->models),
            ),
        ]);
    }

    /** @return list<array<string, mixed>> one for each model; about one in twelve is signed now */
    private function packages(int $build): array
    {
        return array_map(
            fn (int $m): array => [
                'hardwareIds' => ["M{$m}"],
                'fileName' => "m{$m}_b{$build}.fwp",
                'bytes' => 6_000_000_000 + $m * 1000,
                'sha256' => hash('sha256', "{$m}/{$build}"),
                'url' => 'http://127.0.0.1:8931/p',
                'signing' => [
                    [
                        'from' => '2025-01-01T00:00:00Z',
                        'until' => crc32("{$m}/{$build}") % 12 === 0 ? null : '2026-06-01T00:00:00Z',
                        'announced' => false,
                    ],
                ],
            ],
            range(1, $this->models),
        );
    }

    /** @return \Generator<array<string, mixed>> */
    public function situations(int $count, int $models): \Generator
    {
        for ($i = 0; $i < $count; $i++) {
            $stock = fn (string $kind): array => [
                'kind' => $kind,
                'items' => 10,
                'bytes' => $this->random->getInt(1, 9) * 1_000_000_000,
                'lastChangedAt' => '2026-11-19T10:00:00Z',
                'syncedAt' => $this->random->getInt(0, 3) === 0 ? '2026-11-19T09:00:00Z' : null,
            ];
            yield Sample::situation(
                [
                    'hardwareId' => 'M'.$this->random->getInt(1, $models),
                    'version' => '10.4.1',
                    'build' => 'X',
                    'kinds' => array_map($stock, ['photos', 'messages', 'contacts', 'app-data', 'health', 'esim']),
                ],
                [
                    'goal' => ['newestInMajor' => $this->random->getInt(7, 10)],
                    'backups' => [
                        [
                            'id' => 'b-1',
                            'where' => 'bag',
                            'takenAt' => '2026-10-01T00:00:00Z',
                            'madeOn' => '8.1.0',
                            'declaredVersion' => '8.1.0',
                            'encrypted' => false,
                            'passphraseProven' => false,
                            'verified' => true,
                            'kinds' => ['photos', 'messages', 'contacts'],
                        ],
                    ],
                ],
            );
        }
    }
}
