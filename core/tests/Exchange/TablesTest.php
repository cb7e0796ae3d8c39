<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Exchange;

use JadeStep\Core\Almanac\Model;
use JadeStep\Core\Exchange\BuildsCsv;
use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Exchange\Exception\UnreadableCsv;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\GoalDocument;
use JadeStep\Core\Exchange\GoalText;
use JadeStep\Core\Exchange\IntakeCsv;
use JadeStep\Core\Exchange\IntakeLine;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Tables in and out: builds, and devices that are to be taken in. */
final class TablesTest extends TestCase
{
    private const HEAD = 'osLine,version,build,channel,releasedAt,hardwareIds,'
        .'fileName,bytes,sha256,url,signedFrom,signedUntil';

    public function test_builds_that_were_written_are_read_back_as_they_were(): void
    {
        $builds = [
            Sample::build(
                '8.7.0',
                '8G210',
                [['2026-05-04T17:00:00Z', '2026-06-01T00:00:00Z'], ['2026-07-01T00:00:00Z', null]],
                [
                    'inPlaceFrom' => '>=7.0 <8.7',
                    'hostAgentMinimum' => '4.2.0',
                    'eraseInstall' => false,
                    'storeSchemas' => ['messages' => 14, 'photos' => 9],
                ],
            ),
            ['build' => '8F190, "old"'] + Sample::build('8.6.0', '8F190', []),
        ];
        $frame = Sample::catalogue([]);
        $catalogue = CatalogueDocument::parse(json_encode(Sample::catalogue($builds), JSON_THROW_ON_ERROR));

        $read = BuildsCsv::read(BuildsCsv::write($catalogue), Fields::of($frame));

        self::assertSame([], $read->faults);
        self::assertEquals(
            $catalogue,
            CatalogueDocument::parse(json_encode($read->document->all(), JSON_THROW_ON_ERROR)),
        );
    }

    /** @param  list<array{int, string}>  $faults  line and the start of the message */
    #[DataProvider('badBuilds')]
    public function test_every_bad_line_of_builds_is_named(string $rows, array $faults): void
    {
        $read = BuildsCsv::read(self::HEAD."\n{$rows}", Fields::of(Sample::catalogue([])));

        self::assertCount(count($faults), $read->faults, json_encode($read->faults, JSON_THROW_ON_ERROR));
        foreach ($faults as $i => [$line, $message]) {
            self::assertSame($line, $read->faults[$i]->line);
            self::assertStringStartsWith($message, $read->faults[$i]->message);
        }
    }

    /** @return iterable<string, array{string, list<array{int, string}>}> */
    public static function badBuilds(): iterable
    {
        $sha = hash('sha256', 'x');
        $good = 'tarn,8.7.0,8G210,release,2026-05-04T17:00:00Z,FN7-2,'
            ."a.fwp,25,{$sha},http://v.invalid/a,2026-05-04T17:00:00Z,";
        yield 'a channel that is none' => [
            str_replace('release', 'nightly', $good),
            [[2, 'channel: expected one of: beta, candidate, release']],
        ];
        yield 'a version, on the third line' => [
            "{$good}\n".str_replace(['8.7.0', 'a.fwp'], ['8.x', 'b.fwp'], $good),
            [[3, 'version: ']],
        ];
        yield 'no number' => [str_replace(',25,', ',many,', $good), [[2, 'bytes: ']]];
        yield 'no digest' => [str_replace($sha, 'abc', $good), [[2, 'sha256: ']]];
        yield 'an unknown model' => [
            str_replace('FN7-2', 'FN7-2 FN9-9', $good),
            [[2, 'hardwareIds: FN9-9 is no model of this vendor']],
        ];
        yield 'an end before the start' => [$good.'2026-05-01T00:00:00Z', [[2, 'until: expected a time after']]];
        yield 'too few cells' => ["{$good}\ntarn,8.6.0", [[3, '2 cells where the first line names 12 columns.']]];
        yield 'two lines that disagree' => [
            "{$good}2026-06-01T00:00:00Z\n"
            .str_replace(['release,', '2026-05-04T17:00:00Z,FN7'], ['candidate,', '2026-05-04T17:00:00Z,FN7'], $good),
            [[3, 'channel is not what an earlier line says of the same build.']],
        ];
    }

    #[DataProvider('noTables')]
    public function test_what_is_no_table_is_refused_whole(string $text, string $words): void
    {
        $this->expectException(UnreadableCsv::class);
        $this->expectExceptionMessage($words);

        IntakeCsv::read($text, Sample::almanac(Sample::catalogue([])));
    }

    /** @return iterable<string, array{string, string}> */
    public static function noTables(): iterable
    {
        yield 'nothing' => ['', 'The file is empty'];
        yield 'semicolons' => ["serial;imei;version;goal\nSKL-1;;9.3;8.7", 'separated by semicolons'];
        yield 'another encoding' => ["serial,modelName,version,goal\nSKL-1,F\xE9nn,9.3,8.7", 'not UTF-8'];
        yield 'an unknown column' => ["serial,colour,version,goal\n", 'Not known: colour.'];
        yield 'a missing column' => ["serial,modelName,version\n", 'Missing: goal.'];
        yield 'a column twice' => ["serial,serial,version,goal\n", 'A column stands twice.'];
    }

    public function test_a_batch_names_every_bad_line_and_what_is_known_of_the_good_ones(): void
    {
        $csv =
            "\u{FEFF}serial,imei,modelName,hardwareId,version,build,goal\r\n"
            ."SKL-0101,,Fenn 7,,9.3,9D55,newest in 8\r\n" // 2: two variants fit
            ."SKL-0102,352099110042013,,FN7-2,9.3,,8.7\r\n" // 3: resolved
            ."\r\n"
            ."SKL-0102,,,FN7-2,9.3,,8.7\r\n" // 5: twice
            .",,Fenn 7,,9.3,,8.7\r\n" // 6: no name
            ."SKL-0103,352099110042014,Fenn 7,,nine,,down\r\n" // 7: three faults
            ."SKL-0104,,Fenn 99,,9.3,,8.7\r\n" // 8: no such model
            ."\"SKL 0105\",,,FN7-2,9.3,8G210,8.7\r\n"; // 9: serial
        $almanac = Sample::almanac(
            Sample::catalogue([Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', null]])]),
        );

        $lines = IntakeCsv::read($csv, $almanac);

        $told = array_map(
            static fn (IntakeLine $l): array => [
                $l->line,
                array_map(static fn (Model $m): string => $m->hardwareId, $l->identity->candidates ?? []),
                $l->goal === null ? null : GoalDocument::write($l->goal),
                count($l->faults),
            ],
            $lines,
        );
        self::assertSame(
            [
                [2, ['FN7-1', 'FN7-2'], ['newestInMajor' => 8], 0],
                [3, ['FN7-2'], ['exact' => '8.7.0'], 0],
                [5, ['FN7-2'], ['exact' => '8.7.0'], 1],
                [6, [], ['exact' => '8.7.0'], 1],
                [7, [], null, 3],
                [8, [], ['exact' => '8.7.0'], 1],
                [9, [], ['exact' => '8.7.0'], 1],
            ],
            $told,
        );
        self::assertSame('This serial stands on line 3 too. Take one of the two out.', $lines[2]->faults[0]);
        self::assertSame('9.3.0', $lines[0]->cells['version']);
    }

    public function test_a_build_of_another_version_and_an_id_of_another_name_are_faults(): void
    {
        $almanac = Sample::almanac(Sample::catalogue([Sample::build('8.7.0', '8G210', [])]));
        $fault = static fn (string $row): string => IntakeCsv::read(
            "serial,hardwareId,modelName,imei,version,build,goal\n{$row}",
            $almanac,
        )[0]->faults[0] ?? '';

        self::assertSame('The build 8G210 is not one of version 9.3. Check both.', $fault('S-1,FN7-2,,,9.3,8G210,8.7'));
        self::assertSame('FN7-2 is Fenn 7 Atlantic, not Fenn 6. Check both.', $fault('S-1,FN7-2,Fenn 6,,9.3,,8.7'));
        self::assertSame('', $fault('S-1,FN7-2,Fenn 7,,9.3,9Z99,8.7'));
    }

    /** @param  array<string, int|string>|null  $goal */
    #[DataProvider('goals')]
    public function test_goals_are_read_as_technicians_write_them(string $text, ?array $goal, string $words): void
    {
        if ($goal === null) {
            $this->expectExceptionMessage($words);
        }
        self::assertSame(
            [$goal, $words],
            [GoalDocument::write(GoalText::parse($text)), GoalText::words(GoalText::parse($text))],
        );
    }

    /** @return iterable<string, array{string, array<string, int|string>|null, string}> */
    public static function goals(): iterable
    {
        yield 'a version' => ['8.7', ['exact' => '8.7.0'], 'exactly 8.7'];
        yield 'a candidate' => ['exactly 8.8.0-rc.1', ['exact' => '8.8.0-rc.1'], 'exactly 8.8 candidate'];
        yield 'a beta as it is shown' => ['10.0 beta 2', ['exact' => '10.0.0-beta.2'], 'exactly 10.0 beta 2'];
        yield 'a candidate as it is shown' => ['8.8 candidate', ['exact' => '8.8.0-rc.1'], 'exactly 8.8 candidate'];
        yield 'below, as it is shown' => [
            'below 9.4 candidate',
            ['newestBelow' => '9.4.0-rc.1'],
            'the newest below 9.4 candidate',
        ];
        yield 'capitals count in a pre-release' => [
            'Exactly 9.3-Alpha.x.7',
            ['exact' => '9.3.0-Alpha.x.7'],
            'exactly 9.3-Alpha.x.7',
        ];
        yield 'and not in words' => ['9.4 Candidate 2', ['exact' => '9.4.0-rc.2'], 'exactly 9.4 candidate 2'];
        yield 'letters' => ['abc', null, '"abc" is not a goal.'];
        yield 'a major' => [' Newest in 8 ', ['newestInMajor' => 8], 'the newest of major 8'];
        yield 'below' => ['below 9.0', ['newestBelow' => '9.0.0'], 'the newest below 9.0'];
        yield 'a date' => [
            'newest before 2026-07-01',
            ['newestBefore' => '2026-07-01T00:00:00Z'],
            'the newest released before 2026-07-01',
        ];
        yield 'no such date' => ['before 2026-02-30', null, '"before 2026-02-30" is not a goal.'];
        yield 'a wish' => ['the old one', null, 'Write one of "8.7.0"'];
        yield 'nothing' => ['', null, 'is not a goal'];
    }
}
