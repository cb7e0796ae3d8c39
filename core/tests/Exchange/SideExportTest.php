<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Exchange;

use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagWriter;
use JadeStep\Core\Bag\PlainContent;
use JadeStep\Core\Bag\TarWriter;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\SideExport;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Sabre\VObject\Component\VCard;
use Sabre\VObject\Reader;
use Sabre\VObject\Splitter\VCard as Cards;

/** Side exports: what every other program can read. */
final class SideExportTest extends TestCase
{
    use TemporaryFolder;

    private const CONTENT = [
        'contacts' => [
            'una.vcf' => "BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Una Marsh\r\n"
                ."N:Marsh;Una;;;\r\nTEL;TYPE=CELL:+00 555 0101\r\nEND:VCARD\r\n",
            'teo.vcf' => "BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Teo Lind\r\nEND:VCARD\r\n"
                ."BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Brit Hale\r\nEND:VCARD\r\n",
            'torn.vcf' => 'BEGIN:VCARD',
        ],
        'calendars' => [
            'roster.ics' => "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Skerry Line//EN\r\n"
                ."BEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20261101T050000Z\r\nDTSTART:20261101T060000Z\r\n"
                ."SUMMARY:Deck watch\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n",
        ],
        'messages' => [
            'b.jsonl' => '{"from":"Una Marsh","sentAt":"2026-11-02T10:00:00Z",'
                ."\"text\":\"berth \\\"4\\\", please\"}\n",
            'a.jsonl' => "{\"from\":\"Teo\",\"sentAt\":\"2026-11-01T10:00:00Z\",\"text\":\"aye\"}\n",
        ],
        'notes' => ['ramp.md' => "# Ramp\n"],
        'call-log' => ['calls.csv' => "when,direction\r\n"],
        'photos' => ['album/deck.jpg' => 'JFIF'],
        'app-data' => ['tide/1.bin' => 'binary'],
    ];

    public function test_every_kind_comes_out_in_its_open_format(): void
    {
        $unreadable = $this->export(Kind::cases());

        self::assertSame(['contacts/torn.vcf'], $unreadable);
        $found = $this->found();
        ksort($found);
        self::assertSame(
            [
                'calendars/roster.ics',
                'call-log/calls.csv',
                'contacts.vcf',
                'messages.csv',
                'messages.jsonl',
                'notes/ramp.md',
                'photos/album/deck.jpg',
                'unreadable.txt',
                'unreadable/contacts/torn.vcf',
            ],
            array_keys($found),
        );
        self::assertSame(
            "conversation,sentAt,from,text\r\na.jsonl,2026-11-01T10:00:00Z,Teo,aye\r\n"
                ."b.jsonl,2026-11-02T10:00:00Z,\"Una Marsh\",\"berth \"\"4\"\", please\"\r\n",
            $found['messages.csv'],
        );
        self::assertSame(
            ['aye', 'berth "4", please'],
            array_map(
                static fn (string $l): string => json_decode($l, true)['text'],
                explode("\n", trim($found['messages.jsonl'])),
            ),
        );
        self::assertSame(
            [self::CONTENT['photos']['album/deck.jpg'], self::CONTENT['notes']['ramp.md']],
            [$found['photos/album/deck.jpg'], $found['notes/ramp.md']],
        );
        $this->assertCards($found['contacts.vcf']);
    }

    /** RFC 6350, as sabre/vobject holds it in strict validation. */
    private function assertCards(string $text): void
    {
        $splitter = new Cards(Sample::stream($text));
        $names = [];
        while ($card = $splitter->getNext()) {
            assert($card instanceof VCard);
            self::assertSame([], array_column($card->validate(), 'message'));
            self::assertSame('4.0', (string) $card->__get('VERSION'));
            $names[] = (string) $card->__get('FN');
        }
        sort($names);
        self::assertSame(['Brit Hale', 'Teo Lind', 'Una Marsh'], $names);
        self::assertSame([], Reader::read(self::CONTENT['calendars']['roster.ics'])->validate());
    }

    /** Messages keep every byte of their own: numbers, empty objects, and a field that is called like ours. */
    public function test_messages_come_out_without_loss(): void
    {
        $lines = [
            '{"from":"Una","id":12345678901234567890123,"ratio":1.0,"more":{},"list":[],"e":1e3}',
            '{}',
            '{ "conversation" : "the harbour", "text":"\u00e5\/"}',
            '{"conversation":1,"conversationPath":2,"text":"both"}',
        ];
        $found = $this->exported(['messages' => ['c.jsonl' => implode("\n", $lines)."\n"]]);

        self::assertSame(
            [
                '{"conversation":"c.jsonl","from":"Una","id":12345678901234567890123,"ratio":1.0,"more":{},"list":[],'
                    .'"e":1e3}',
                '{"conversation":"c.jsonl"}',
                '{"conversationPath":"c.jsonl","conversation" : "the harbour", "text":"\u00e5\/"}',
                '{"conversationPathPath":"c.jsonl","conversation":1,"conversationPath":2,"text":"both"}',
            ],
            explode("\n", trim($found['messages.jsonl'])),
        );
    }

    public function test_a_bad_line_is_left_and_the_others_come_out(): void
    {
        $text = "{\"text\":\"one\"}\n\nnot json\n[1]\n{\"text\":\"two\"}\r\n\"text\"\n";
        $found = $this->exported(['messages' => ['c.jsonl' => $text, 'empty.jsonl' => '']]);

        self::assertSame(2, substr_count($found['messages.jsonl'], "\n"));
        self::assertSame("not json\n[1]\n\"text\"\n", $found['unreadable/messages/c.jsonl']);
        self::assertSame("messages/c.jsonl, lines 3, 4, 6\n", $found['unreadable.txt']);
    }

    #[DataProvider('cards')]
    public function test_a_card_becomes_a_valid_card_of_version_4(string $card, string $name): void
    {
        $found = $this->exported(['contacts' => ['c.vcf' => "BEGIN:VCARD\r\n{$card}\r\nEND:VCARD\r\n"]]);
        $read = Reader::read($found['contacts.vcf']);
        assert($read instanceof VCard);

        self::assertSame([], array_column($read->validate(), 'message'));
        self::assertSame(['4.0', $name], [(string) $read->__get('VERSION'), (string) $read->__get('FN')]);
        self::assertArrayNotHasKey('unreadable.txt', $found);
    }

    /** @return iterable<string, array{string, string}> */
    public static function cards(): iterable
    {
        yield 'in Latin-1' => ["VERSION:3.0\r\nN:\xC5berg;Bj\xF6rn;;;\r\nFN:Bj\xF6rn \xC5berg", 'Björn Åberg'];
        yield 'without a formatted name' => ["VERSION:3.0\r\nN:Marsh;Una;May;Dr.;\r\nTEL:1", 'Dr. Una May Marsh'];
        yield 'with an empty one' => ["VERSION:4.0\r\nFN:\r\nN:Lind;Teo;;;", 'Teo Lind'];
        yield 'only an organisation' => ["VERSION:3.0\r\nORG:Skerry Line;Depot", 'Skerry Line Depot'];
        yield 'only an address' => ["VERSION:4.0\r\nEMAIL:una@skerry.example", 'una@skerry.example'];
        yield 'only a number' => ["VERSION:3.0\r\nTEL;TYPE=CELL:+00 555 0101", '+00 555 0101'];
        yield 'nothing at all' => ['VERSION:4.0', 'Without a name'];
        yield 'of version 2.1' => [
            "VERSION:2.1\r\nN;CHARSET=ISO-8859-1;ENCODING=QUOTED-PRINTABLE:=C5berg;Bj=F6rn\r\nTEL;CELL:1",
            'Björn Åberg',
        ];
    }

    public function test_one_torn_card_does_not_keep_the_others_back(): void
    {
        $good = "BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Teo\r\nEND:VCARD\r\n";
        $found = $this->exported(['contacts' => ['c.vcf' => "{$good}no card\r\nEND:VCARD\r\n{$good}"]]);

        self::assertSame(2, substr_count($found['contacts.vcf'], 'BEGIN:VCARD'));
        self::assertSame("no card\r\nEND:VCARD\r\n", $found['unreadable/contacts/c.vcf']);
    }

    /** What a spreadsheet would run begins with one of these (common practice, no source). */
    public function test_no_cell_of_a_table_can_be_run(): void
    {
        $found = $this->exported([
            'messages' => ['=c.jsonl' => json_encode(['text' => '=1+1', 'from' => '@x', 'sentAt' => "\t1"])."\n"],
            'call-log' => ['calls.csv' => "when,who\r\n+1,\"-2,\"\"3\"\"\"\r\n\"\r4\",5-6\r\n"],
        ]);

        self::assertSame(
            "conversation,sentAt,from,text\r\n'=c.jsonl,\"'\t1\",'@x,'=1+1\r\n",
            $found['messages.csv'],
        );
        self::assertSame(
            "when,who\r\n'+1,\"'-2,\"\"3\"\"\"\r\n\"'\r4\",5-6\r\n",
            $found['call-log/calls.csv'],
        );
    }

    public function test_a_name_that_leads_elsewhere_does_not_lead_out_of_the_export(): void
    {
        $found = $this->exported(['notes' => ['../../etc/note.md' => 'x', '~/a.md' => 'y']]);

        self::assertCount(2, $found);
        foreach (array_keys($found) as $name) {
            self::assertMatchesRegularExpression('#\Anotes/[a-z]+-[0-9a-f]{16}\.md\z#', $name);
        }
    }

    /**
     * @param  array<string, array<string, string>>  $content
     * @return array<string, string> text by file name
     */
    private function exported(array $content): array
    {
        $this->export(Kind::cases(), $content);

        return $this->found();
    }

    /** @return array<string, string> text by file name */
    private function found(): array
    {
        $found = [];
        foreach (
            new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator("{$this->folder}/out", \FilesystemIterator::SKIP_DOTS),
            ) as $file
        ) {
            $name = substr($file->getPathname(), strlen("{$this->folder}/out/x/"));
            $found[$name] = (string) file_get_contents($file->getPathname());
        }

        return $found;
    }

    public function test_only_what_was_asked_for_comes_out(): void
    {
        self::assertSame([], $this->export([Kind::Notes, Kind::AppData]));
        self::assertSame(['notes'], array_values(array_diff(scandir("{$this->folder}/out/x") ?: [], ['.', '..'])));
    }

    /**
     * @param  list<Kind>  $kinds
     * @param  array<string, array<string, string>>  $content
     * @return list<string>
     */
    private function export(array $kinds, array $content = self::CONTENT): array
    {
        $writer = BagWriter::open("{$this->folder}/b");
        foreach ($content as $kind => $items) {
            foreach ($items as $path => $text) {
                $writer->put($kind, $path, Rfc3339::parse('2026-11-01T12:00:00Z'), Sample::stream($text));
            }
        }
        $writer->finish(Sample::description(), array_fill_keys(array_keys($content), null));
        $out = fopen("{$this->folder}/out.tar", 'w+b');
        assert($out !== false);
        $unreadable = SideExport::write(
            new PlainContent(BagReader::open("{$this->folder}/b")),
            $kinds,
            'x',
            Rfc3339::parse(Sample::NOW),
            TarWriter::to($out),
        );
        fclose($out);
        exec("mkdir {$this->folder}/out && tar -xf {$this->folder}/out.tar -C {$this->folder}/out", $_, $status);
        self::assertSame(0, $status, 'tar reads what we wrote');

        return $unreadable;
    }
}
