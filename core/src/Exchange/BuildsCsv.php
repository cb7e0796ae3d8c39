<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Catalogue;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Almanac\SigningWindow;
use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Exchange\Exception\UnreadableCsv;
use JadeStep\Core\Exchange\Internal\Csv;
use JadeStep\Core\Time\Rfc3339;

/**
 * Builds as a table: one line a signing window of a package, and one line for a package that was never signed. Lines of
 * one build agree in the build's columns, lines of one package in the package's; what a build's first line says counts.
 * Lists within a cell (`hardwareIds`, `storeSchemas` as kind=schema) are separated by blanks.
 */
final class BuildsCsv
{
    public const COLUMNS = [
        'osLine',
        'version',
        'build',
        'channel',
        'releasedAt',
        'rollbackIndex',
        'radioLevel',
        'hostAgentMinimum',
        'eraseInstall',
        'inPlaceFrom',
        'stepDownFrom',
        'storeSchemas',
        'hardwareIds',
        'fileName',
        'bytes',
        'sha256',
        'url',
        'signedFrom',
        'signedUntil',
        'endAnnounced',
    ];

    private const MOST_LINES = 25_000;

    /** Builds that are held against the schema in one go: what that takes grows with them. */
    private const CHECKED_AT_ONCE = 500;

    private const NEEDED = [
        'osLine',
        'version',
        'build',
        'channel',
        'releasedAt',
        'hardwareIds',
        'fileName',
        'bytes',
        'sha256',
        'url',
        'signedFrom',
        'signedUntil',
    ];

    private const OF_BUILD = [
        'channel',
        'releasedAt',
        'rollbackIndex',
        'radioLevel',
        'hostAgentMinimum',
        'eraseInstall',
        'inPlaceFrom',
        'stepDownFrom',
        'storeSchemas',
    ];

    private const OF_PACKAGE = ['hardwareIds', 'bytes', 'sha256', 'url'];

    public static function write(Catalogue $catalogue): string
    {
        $rows = [];
        foreach ($catalogue->builds as $build) {
            foreach ($build->packages as $package) {
                foreach ($package->signing === [] ? [null] : $package->signing as $window) {
                    $rows[] = [
                        ...self::buildCells($build),
                        ...self::packageCells($package),
                        ...self::windowCells($window),
                    ];
                }
            }
        }

        return Csv::write(self::COLUMNS, $rows);
    }

    /**
     * Reads the table into the `builds` of a catalogue document.
     *
     * @param  Fields  $frame  the rest of that document: vendor, models, accessories and times
     *
     * @throws UnreadableCsv where it is no such table
     */
    public static function read(string $text, Fields $frame): ReadBuilds
    {
        $known = $frame->each('models', static fn (Fields $m): string => $m->string('hardwareId'));
        $faults = [];
        $unknown = [];
        $firsts = [];
        $builds = [];
        $packages = [];
        $windows = [];
        $lines = [];
        $rows = Csv::read($text, self::COLUMNS, self::NEEDED);
        count($rows) <= self::MOST_LINES || throw UnreadableCsv::tooLarge(self::MOST_LINES);
        foreach ($rows as $line => $row) {
            $wrong = is_string($row) ? $row : self::disagreement($row, $firsts);
            if (is_string($row) || $wrong !== null) {
                $faults[] = new LineFault($line, (string) $wrong);

                continue;
            }
            [$b, $p] = ["{$row['osLine']} {$row['version']} {$row['build']}", $row['fileName']];
            $builds[$b] ??= self::build($row);
            if (! isset($packages[$b][$p])) {
                $packages[$b][$p] = self::package($row);
                $unknown = [...$unknown, ...self::unknownModels($line, $row, $known)];
            }
            if ($row['signedFrom'] !== '') {
                $windows[$b][$p][] = self::window($row);
            }
            $lines[$b][$p][] = $line;
        }
        unset($rows, $firsts);
        $whole = [];
        foreach ($builds as $b => $build) {
            $its = array_map(
                static fn (string $p): array => ['signing' => $windows[$b][$p] ?? []] + $packages[$b][$p],
                array_map(strval(...), array_keys($packages[$b])),
            );
            $whole[] = ['packages' => $its] + $build;
        }
        unset($builds, $packages, $windows);
        $document = $frame->with('builds', $whole);
        $places = array_values(array_map('array_values', $lines));
        foreach (array_chunk($whole, self::CHECKED_AT_ONCE) as $i => $some) {
            $here = array_slice($places, $i * self::CHECKED_AT_ONCE, self::CHECKED_AT_ONCE);
            $faults = [...$faults, ...self::schemaFaults($frame->with('builds', $some), $here)];
        }

        return new ReadBuilds($document, [...$faults, ...$unknown]);
    }

    /**
     * @param  array<string, string>  $row
     * @param  list<string>  $known  hardware ids of the vendor
     * @return list<LineFault>
     */
    private static function unknownModels(int $line, array $row, array $known): array
    {
        return array_map(
            static fn (string $id): LineFault => new LineFault(
                $line,
                "hardwareIds: {$id} is no model of this vendor in the almanac. "
                    .'Check it, or take in a catalogue that names it.',
            ),
            array_values(array_diff(self::words($row['hardwareIds']), $known)),
        );
    }

    /**
     * @param  array<string, string>  $row
     * @param  array<string, array<string, string>>  $firsts  the first line of each build and package
     */
    private static function disagreement(array $row, array &$firsts): ?string
    {
        $build = "{$row['osLine']} {$row['version']} {$row['build']}";
        foreach ([[$build, self::OF_BUILD], ["{$build} {$row['fileName']}", self::OF_PACKAGE]] as [$key, $columns]) {
            $firsts[$key] ??= $row;
            foreach ($columns as $column) {
                if ($firsts[$key][$column] !== $row[$column]) {
                    return "{$column} is not what an earlier line says of the same "
                        .($columns === self::OF_BUILD ? 'build' : 'package')
                        .'.';
                }
            }
        }

        return null;
    }

    /**
     * The format's own schema judges the values; a fault is told with the line it comes from.
     *
     * @param  list<list<list<int>>>  $places  line numbers by build and package
     * @return list<LineFault>
     */
    private static function schemaFaults(Fields $document, array $places): array
    {
        $faults = [];
        try {
            CatalogueDocument::parse(json_encode($document->all(), JSON_THROW_ON_ERROR));
        } catch (InvalidDocument $e) {
            foreach ($e->faults as $fault) {
                $at = explode('/', $fault['pointer']);
                $lines = $places[(int) ($at[2] ?? 0)] ?? [];
                $line =
                    ($at[3] ?? '') === 'packages'
                        ? $lines[(int) ($at[4] ?? 0)][(int) ($at[6] ?? 0)] ?? 0
                        : $lines[0][0] ?? 0;
                $faults[] = new LineFault($line, end($at).': '.$fault['message']);
            }
        }

        return $faults;
    }

    /**
     * @param  array<string, string>  $row
     * @return array<string, mixed>
     */
    private static function build(array $row): array
    {
        $schemas = [];
        foreach (self::words($row['storeSchemas']) as $pair) {
            [$kind, $schema] = explode('=', $pair, 2) + ['', ''];
            $schemas[$kind] = self::number($schema);
        }

        return [
            'osLine' => $row['osLine'],
            'version' => $row['version'],
            'build' => $row['build'],
            'channel' => $row['channel'],
            'releasedAt' => $row['releasedAt'],
            'rollbackIndex' => $row['rollbackIndex'] === '' ? 0 : self::number($row['rollbackIndex']),
            'radioLevel' => $row['radioLevel'] === '' ? 0 : self::number($row['radioLevel']),
            'hostAgentMinimum' => self::textOrNull($row['hostAgentMinimum']),
            'eraseInstall' => self::truth($row['eraseInstall'], true),
            'inPlaceFrom' => self::textOrNull($row['inPlaceFrom']),
            'stepDownFrom' => self::textOrNull($row['stepDownFrom']),
            'storeSchemas' => (object) $schemas,
        ];
    }

    /**
     * @param  array<string, string>  $row
     * @return array<string, mixed>
     */
    private static function package(array $row): array
    {
        return [
            'hardwareIds' => self::words($row['hardwareIds']),
            'fileName' => $row['fileName'],
            'bytes' => self::number($row['bytes']),
            'sha256' => strtolower($row['sha256']),
            'url' => $row['url'],
        ];
    }

    /**
     * @param  array<string, string>  $row
     * @return array<string, mixed>
     */
    private static function window(array $row): array
    {
        return [
            'from' => $row['signedFrom'],
            'until' => self::textOrNull($row['signedUntil']),
            'announced' => self::truth($row['endAnnounced'], false),
        ];
    }

    /** @return int|string the text as it is where it is no number, so that the schema names it */
    private static function number(string $text): int|string
    {
        return preg_match('/\A\d{1,18}\z/', $text) === 1 ? (int) $text : $text;
    }

    private static function truth(string $text, bool $without): bool|string
    {
        return match (strtolower($text)) {
            '' => $without, 'yes', 'true', '1' => true, 'no', 'false', '0' => false, default => $text
        };
    }

    private static function textOrNull(string $text): ?string
    {
        return $text === '' ? null : $text;
    }

    /** @return list<string> */
    private static function words(string $text): array
    {
        preg_match_all('/\S+/', $text, $words);

        return $words[0];
    }

    /** @return list<string|int|null> */
    private static function buildCells(Build $b): array
    {
        $schemas = array_map(
            static fn (string $kind, int $schema): string => "{$kind}={$schema}",
            array_keys($b->storeSchemas),
            $b->storeSchemas,
        );

        return [
            $b->osLine,
            (string) $b->version,
            $b->build,
            $b->channel->value,
            Rfc3339::format($b->releasedAt),
            $b->rollbackIndex,
            $b->radioLevel,
            (string) $b->hostAgentMinimum,
            $b->eraseInstall ? 'yes' : 'no',
            (string) $b->inPlaceFrom,
            (string) $b->stepDownFrom,
            implode(' ', $schemas),
        ];
    }

    /** @return list<string|int> */
    private static function packageCells(Package $p): array
    {
        return [implode(' ', $p->hardwareIds), $p->fileName, $p->bytes, $p->sha256, $p->url];
    }

    /** @return list<string> */
    private static function windowCells(?SigningWindow $w): array
    {
        return $w === null
            ? ['', '', '']
            : [Rfc3339::format($w->from), (string) Rfc3339::formatOrNull($w->until), $w->announced ? 'yes' : 'no'];
    }
}
