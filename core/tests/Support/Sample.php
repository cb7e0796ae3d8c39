<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Support;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Bag\BagDescription;
use JadeStep\Core\Bag\BagWriter;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Exchange\SituationDocument;
use JadeStep\Core\Route\Situation;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;

/** Documents and bags of the ferry company's depot, each with what a test changes. */
final class Sample
{
    public const NOW = '2026-11-20T09:00:00Z';

    /**
     * @param  list<array<string, mixed>>  $builds
     * @param  array<string, mixed>  $more
     * @return array<string, mixed>
     */
    public static function catalogue(array $builds, array $more = []): array
    {
        $model = static fn (string $id, string $variant): array => [
            'hardwareId' => $id,
            'name' => 'Fenn 7',
            'variant' => $variant,
            'form' => 'phone',
            'osLine' => 'tarn',
            'tac' => ['35209911'],
            'recoverySequence' => [['action' => 'hold', 'target' => 'power', 'seconds' => 12]],
        ];

        return $more + [
            'format' => 'jade-step/catalogue',
            'formatVersion' => 1,
            'vendor' => ['id' => 'brightmere', 'name' => 'Brightmere'],
            'issuedAt' => '2026-11-20T08:00:00Z',
            'freshUntil' => '2026-11-20T20:00:00Z',
            'models' => [$model('FN7-1', 'Nordic'), $model('FN7-2', 'Atlantic')],
            'builds' => $builds,
            'accessories' => [['type' => 'fenn-band', 'osVersion' => '>=5.0', 'needsHost' => '>=9.0']],
        ];
    }

    /**
     * @param  list<array{string, string|null}>  $windows  from and until
     * @param  array<string, mixed>  $more
     * @return array<string, mixed>
     */
    public static function build(string $version, string $label, array $windows, array $more = []): array
    {
        $package = [
            'hardwareIds' => ['FN7-2'],
            'fileName' => "fn7_{$label}.fwp",
            'bytes' => 25_000_000,
            'sha256' => hash('sha256', $label),
            'url' => "http://127.0.0.1:8931/packages/fn7_{$label}.fwp",
            'signing' => array_map(
                static fn (array $w): array => ['from' => $w[0], 'until' => $w[1], 'announced' => false],
                $windows,
            ),
        ];

        return $more + [
            'osLine' => 'tarn',
            'version' => $version,
            'build' => $label,
            'channel' => 'release',
            'releasedAt' => '2026-05-04T17:00:00Z',
            'rollbackIndex' => 3,
            'radioLevel' => 12,
            'packages' => [$package],
        ];
    }

    /**
     * @param  array<string, mixed>  $device
     * @param  array<string, mixed>  $more
     * @return array<string, mixed>
     */
    public static function situation(array $device = [], array $more = []): array
    {
        return $more + [
            'format' => 'jade-step/situation', 'formatVersion' => 1, 'now' => self::NOW,
            'device' => $device + [
                'serial' => 'SKL-0042',
                'hardwareId' => 'FN7-2',
                'modelName' => 'Fenn 7',
                'osLine' => 'tarn',
                'version' => '9.3.0',
                'build' => '9D55',
                'rollbackCounter' => 3,
                'radioMinimum' => 10,
                'capacityBytes' => 64_000_000_000,
                'freeBytes' => 20_000_000_000,
                'batteryPercent' => 80,
                'charging' => true,
                'paired' => true,
                'ownerLock' => 'off',
                'lockDelay' => 'off',
                'lockDelayEndsAt' => null,
                'ownerAccountAtHand' => true,
                'passcodeKnown' => true,
                'betaEnrolled' => false,
                'accessories' => [],
                'apps' => [],
                'kinds' => [],
            ],
            'backups' => [],
            'sideExports' => [],
            'planned' => ['backup' => 'plain', 'sideExports' => []],
            'bench' => [
                'linkBytesPerSecond' => 6_100_000,
                'backupBytesPerSecond' => 30_000_000,
                'returnBytesPerSecond' => 30_000_000,
                'hostAgent' => '4.3',
                'freeDiskBytes' => 200_000_000_000,
            ],
            'goal' => ['newestInMajor' => 8],
            'accept' => ['pairingLost' => [], 'appsUnavailable' => []],
        ];
    }

    /** @return array<string, mixed> */
    public static function stock(string $kind, ?string $changed = '2026-11-19T10:00:00Z', ?string $synced = null): array
    {
        return ['kind' => $kind, 'items' => 3, 'bytes' => 3000, 'lastChangedAt' => $changed, 'syncedAt' => $synced];
    }

    /** @param  array<string, mixed>  ...$catalogues */
    public static function almanac(array ...$catalogues): Almanac
    {
        return Almanac::of(
            ...array_map(
                static fn (array $c) => CatalogueDocument::parse(json_encode($c, JSON_THROW_ON_ERROR)),
                array_values($catalogues),
            ),
        );
    }

    /** @param  array<string, mixed>  $situation */
    public static function read(array $situation): Situation
    {
        return SituationDocument::parse(json_encode($situation, JSON_THROW_ON_ERROR));
    }

    public static function description(string $id = 'b-17', string $declared = '9.3.0'): BagDescription
    {
        return new BagDescription(
            $id,
            'SKL-0042',
            'FN7-2',
            'tarn',
            Version::parse('9.3.0'),
            Version::parse($declared),
            Rfc3339::parse('2026-11-19T18:00:00Z'),
            Encryption::None,
            'Fenn 7 SKL-0042, before the weekend',
        );
    }

    /** @return array<string, array<string, string>> contents by kind and path */
    public static function contents(): array
    {
        return [
            'photos' => ['album/deck 1.jpg' => str_repeat('rock', 5000), 'album/100%.jpg' => 'foam'],
            'contacts' => ['una.vcf' => "BEGIN:VCARD\r\nEND:VCARD\r\n"],
            'settings' => ['system/about.json' => '{"version":"9.3.0"}', 'user/ålesund.json' => '{}'],
        ];
    }

    /** Writes the sample bag. */
    public static function bag(string $folder, ?BagDescription $description = null): void
    {
        $writer = BagWriter::open($folder);
        foreach (self::contents() as $kind => $items) {
            foreach ($items as $path => $content) {
                $writer->put($kind, $path, Rfc3339::parse('2026-11-01T12:00:00Z'), self::stream($content));
            }
        }
        $writer->finish($description ?? self::description(), ['photos' => 9, 'contacts' => null, 'settings' => null]);
    }

    /** @return resource */
    public static function stream(string $content)
    {
        $stream = fopen('php://memory', 'r+b');
        assert($stream !== false);
        fwrite($stream, $content);
        rewind($stream);

        return $stream;
    }
}
