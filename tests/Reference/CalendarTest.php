<?php

declare(strict_types=1);

namespace Tests\Reference;

use JadeStep\Core\Exchange\BuildsCsv;
use JadeStep\Core\Exchange\CalendarFile;
use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\TestCase;
use Sabre\VObject\Component\VCalendar;
use Sabre\VObject\Reader;
use Symfony\Component\Process\Process;

/** Files that other programs read: iCalendar after RFC 5545, CSV after RFC 4180. */
final class CalendarTest extends TestCase
{
    public function test_the_calendar_passes_strict_validation_and_holds_announced_ends_and_latest_starts(): void
    {
        $catalogue = Sample::catalogue([
            self::announced(Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', '2026-12-14T18:00:00Z']])),
            self::announced(Sample::build('8.6.0', '8F190', [['2026-03-04T17:00:00Z', '2026-06-01T18:00:00Z']])),
            Sample::build('8.5.0', '8E172', [['2026-03-04T17:00:00Z', null]]),
        ]);
        $starts = [
            [
                'job' => 7,
                'device' => 'Fenn 7 SKL-0042, with commas; and "quotes"',
                'goal' => '8.7',
                'at' => Rfc3339::parse('2026-12-14T17:05:00Z'),
            ],
        ];

        $text = CalendarFile::of(Sample::almanac($catalogue), $starts, Rfc3339::parse(Sample::NOW));

        $calendar = Reader::read($text);
        assert($calendar instanceof VCalendar);
        self::assertSame([], $calendar->validate(), 'RFC 5545, as sabre/vobject holds it');
        $events = [];
        foreach ($calendar->select('VEVENT') as $event) {
            $events[(string) $event->SUMMARY] = (string) $event->DTSTART;
        }
        self::assertSame(
            [
                '8.7 (8G210) stops being signed' => '20261214T180000Z',
                'Start by now: Fenn 7 SKL-0042, with commas; and "quotes"' => '20261214T170500Z',
            ],
            $events,
        );
        // RFC 5545 section 3.1: lines end in CRLF and are no longer than 75 octets
        self::assertSame(substr_count($text, "\n"), substr_count($text, "\r\n"));
        self::assertLessThanOrEqual(75, max(array_map('strlen', explode("\r\n", $text))));
        self::assertSame(
            $text,
            CalendarFile::of(Sample::almanac($catalogue), $starts, Rfc3339::parse(Sample::NOW)),
            'the same world gives the same file',
        );
    }

    /** RFC 4180: Python's reader takes our table apart as we put it together. */
    public function test_pythons_reader_reads_the_table_of_builds(): void
    {
        $build = Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', null]], ['inPlaceFrom' => '>=7.0 <8.7']);
        $build['build'] = "8G210, \"re-release\"\nof May";
        $csv = BuildsCsv::write(
            CatalogueDocument::parse(json_encode(Sample::catalogue([$build]), JSON_THROW_ON_ERROR)),
        );
        $python = new Process(
            [
                'python3',
                '-c',
                'import csv, io, json, sys; '
                    .'print(json.dumps(list(csv.DictReader(io.TextIOWrapper(sys.stdin.buffer, newline="", '
                    .'encoding="utf-8"), strict=True))))',
            ],
            null,
            null,
            $csv,
        );

        $rows = json_decode($python->mustRun()->getOutput(), true, 8, JSON_THROW_ON_ERROR);

        self::assertSame(
            [BuildsCsv::COLUMNS, $build['build'], '25000000', '>=7.0 <8.7'],
            [array_keys($rows[0]), $rows[0]['build'], $rows[0]['bytes'], $rows[0]['inPlaceFrom']],
        );
        self::assertCount(1, $rows);
    }

    /**
     * @param  array<string, mixed>  $build
     * @return array<string, mixed>
     */
    private static function announced(array $build): array
    {
        $build['packages'][0]['signing'][0]['announced'] = true;

        return $build;
    }
}
