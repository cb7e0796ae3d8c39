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
        $found = [];
        foreach (
            new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator("{$this->folder}/out", \FilesystemIterator::SKIP_DOTS),
            ) as $file
        ) {
            $found[substr($file->getPathname(), strlen("{$this->folder}/out/x/"))] = (string) file_get_contents(
                $file->getPathname(),
            );
        }
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

    public function test_only_what_was_asked_for_comes_out(): void
    {
        self::assertSame([], $this->export([Kind::Notes, Kind::AppData]));
        self::assertSame(['notes'], array_values(array_diff(scandir("{$this->folder}/out/x") ?: [], ['.', '..'])));
    }

    /**
     * @param  list<Kind>  $kinds
     * @return list<string>
     */
    private function export(array $kinds): array
    {
        $writer = BagWriter::open("{$this->folder}/b");
        foreach (self::CONTENT as $kind => $items) {
            foreach ($items as $path => $text) {
                $writer->put($kind, $path, Rfc3339::parse('2026-11-01T12:00:00Z'), Sample::stream($text));
            }
        }
        $writer->finish(Sample::description(), array_fill_keys(array_keys(self::CONTENT), null));
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
