<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\BagDescription;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\EncryptedBagWriter;
use JadeStep\Core\Bag\EncryptedContent;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Exception\WeakPassphrase;
use JadeStep\Core\Bag\Exception\WriteFailed;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\Internal\TarReader;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Lowering;
use JadeStep\Core\Bag\OpenPgp;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Bag\TarWriter;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Encrypted bags: written in segments, resumed, proven, lowered, and what is wrong with them named. */
final class EncryptedBagTest extends TestCase
{
    use TemporaryFolder;

    private const PASSPHRASE = 'harbour light at low tide';

    public function test_what_was_written_comes_back_byte_for_byte(): void
    {
        $this->write();

        self::assertSame(self::flat(), $this->contents());
        self::assertSame([], BagVerifier::verify("{$this->folder}/b")->faults);
        self::assertSame([], $this->content()->prove());
        self::assertSame(['photos' => 2, 'contacts' => 1, 'settings' => 2], $this->content()->inventory()->counts());
    }

    /** Nothing outside data/ tells names or contents, and inside all is encrypted. */
    public function test_no_name_and_no_content_stands_in_the_clear(): void
    {
        $this->write();
        $everything = '';
        foreach (
            new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator("{$this->folder}/b", \FilesystemIterator::SKIP_DOTS),
            ) as $file
        ) {
            $everything .= $file->getPathname().file_get_contents($file->getPathname());
        }

        foreach (['deck', 'una.vcf', 'VCARD', 'rockrock', self::PASSPHRASE] as $secret) {
            self::assertStringNotContainsString($secret, $everything);
        }
        self::assertSame(Encryption::OpenPgp, BagReader::open("{$this->folder}/b")->description()->encryption);
    }

    public function test_segments_are_no_larger_than_they_may_be_and_hold_one_kind_each(): void
    {
        $writer = $this->writer(250);
        foreach (range(1, 9) as $i) {
            $this->put($writer, $i < 7 ? 'photos' : 'notes', "item-{$i}", str_repeat((string) $i, 100));
        }
        $this->put($writer, 'notes', 'large', str_repeat('x', 900));
        $this->finish($writer, ['photos' => null, 'notes' => null]);

        $names = array_map(basename(...), glob("{$this->folder}/b/data/*") ?: []);
        self::assertSame(
            [
                'inventory.jsonl.gpg',
                'notes-0001.tar.gpg',
                'notes-0002.tar.gpg',
                'notes-0003.tar.gpg',
                'photos-0001.tar.gpg',
                'photos-0002.tar.gpg',
                'photos-0003.tar.gpg',
            ],
            $names,
        );
        self::assertSame([], $this->content()->prove());
    }

    public function test_a_killed_writer_goes_on_after_the_last_whole_segment(): void
    {
        $writer = $this->writer(250);
        foreach (range(1, 5) as $i) {
            $this->put($writer, 'photos', "item-{$i}", str_repeat((string) $i, 100));
        }
        $writer->abandon(); // as a kill would: the open segment is lost, the whole ones are not
        $again = $this->writer(250);

        self::assertSame(
            [true, true, true, true, false],
            array_map(
                fn (int $i): bool => $again->has(self::item('photos', "item-{$i}", str_repeat((string) $i, 100))),
                range(1, 5),
            ),
        );
        $this->put($again, 'photos', 'item-5', str_repeat('5', 100));
        $this->finish($again, ['photos' => null]);
        self::assertCount(5, $this->contents());
        self::assertSame([], BagVerifier::verify("{$this->folder}/b")->faults);
    }

    /** Whoever knows the passphrase can write other content under the same names: it is held against the inventory. */
    #[DataProvider('otherContents')]
    public function test_what_is_not_what_the_inventory_says_is_named(string $path, string $text, string $fault): void
    {
        $writer = $this->writer();
        $this->put($writer, 'notes', 'a', 'as it was');
        $this->finish($writer, ['notes' => null]);
        chmod("{$this->folder}/b/data/notes-0001.tar.gpg", 0o644);
        unlink("{$this->folder}/b/data/notes-0001.tar.gpg");
        $this->pgp()->encrypt("{$this->folder}/b/data/notes-0001.tar.gpg", static function ($out) use (
            $path,
            $text,
        ): void {
            $tar = TarWriter::to($out);
            $tar->addText($path, $text, 1_795_165_200);
            $tar->end();
        });

        self::assertSame([$fault], array_map(
            static fn (Fault $f): string => "{$f->code->value} {$f->path}",
            $this->content()->prove(),
        ));
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function otherContents(): iterable
    {
        yield 'altered, of the same size' => ['notes/a', 'as it is!', 'altered notes/a'];
        yield 'altered, longer' => ['notes/a', 'as it was and more', 'altered notes/a'];
        yield 'gone' => ['notes/b', 'as it was', 'missing notes/a'];
    }

    /** @param  string  $type  as POSIX.1-2001 (pax) names it */
    #[DataProvider('tarTypes')]
    public function test_a_tar_holds_files_and_folders_alone(string $type, bool $taken): void
    {
        $block = static fn (string $sum): string => str_pad(
            pack('a100', 'notes/a').sprintf("%07o\0%07o\0%07o\0%011o\0%011o\0", 0o644, 0, 0, 0, 0)
                .$sum.$type.pack('a100', '/etc/passwd')."ustar\x0000",
            512,
            "\0",
        );
        $sum = array_sum(array_map(ord(...), str_split($block('        '))));
        $stream = Sample::stream($block(sprintf("%06o\0 ", $sum)).str_repeat("\0", 1024));
        $found = [];
        try {
            (new TarReader($stream, 'notes-0001'))->each(static function (string $path) use (&$found): void {
                $found[] = $path;
            });
            $wasTaken = true;
        } catch (Unopened $e) {
            self::assertStringContainsString('neither file nor folder', $e->getMessage());
            $wasTaken = false;
        }

        self::assertSame([$taken, $taken && $type !== '5' ? ['notes/a'] : []], [$wasTaken, $found]);
    }

    /** @return iterable<string, array{string, bool}> */
    public static function tarTypes(): iterable
    {
        yield 'a file' => ['0', true];
        yield 'a file of old' => ["\0", true];
        yield 'a folder' => ['5', true];
        yield 'a hard link' => ['1', false];
        yield 'a symbolic link' => ['2', false];
        yield 'a character device' => ['3', false];
        yield 'a block device' => ['4', false];
        yield 'a pipe' => ['6', false];
    }

    public function test_a_segment_without_its_record_is_not_counted_on(): void
    {
        $writer = $this->writer();
        $this->put($writer, 'photos', 'a', 'aaaa');
        $writer->pause();
        unlink("{$this->folder}/b.writing/records/photos-0001");
        $again = $this->writer();

        self::assertFalse($again->has(self::item('photos', 'a', 'aaaa')));
        $this->put($again, 'photos', 'a', 'aaaa');
        $this->finish($again, ['photos' => null]);
        self::assertSame(['photos/a' => 'aaaa'], $this->contents());
    }

    public function test_an_item_that_changed_meanwhile_is_seen_and_the_later_entry_counts(): void
    {
        $writer = $this->writer();
        $listed = self::item('photos', 'a', 'first');
        $put = $writer->put($listed, Sample::stream('other'));
        self::assertNotSame($listed->sha256, $put->sha256);
        foreach (['longer than it was', 'no'] as $text) {
            self::assertNotSame(
                $listed->sha256,
                $writer->put(self::item('photos', "b-{$text}", 'first'), Sample::stream($text))->sha256,
            );
        }
        $writer->pause();
        $again = $this->writer();
        self::assertFalse($again->has($listed));
        $this->put($again, 'photos', 'a', 'first');
        $this->put($again, 'photos', 'b-no', 'no');
        $this->put($again, 'photos', 'b-longer than it was', 'longer than it was');
        $this->finish($again, ['photos' => null]);

        self::assertSame(
            ['photos/a' => 'first', 'photos/b-longer than it was' => 'longer than it was', 'photos/b-no' => 'no'],
            $this->contents(),
        );
        self::assertSame([], $this->content()->prove());
    }

    public function test_another_passphrase_neither_opens_nor_goes_on(): void
    {
        $writer = $this->writer();
        $this->put($writer, 'photos', 'a', 'aaaa');
        $writer->pause();
        try {
            EncryptedBagWriter::open("{$this->folder}/b", $this->pgp('something else entirely'));
            self::fail('Another passphrase went on.');
        } catch (Unopened $e) {
            self::assertTrue($e->passphraseIsWrong);
        }
        $this->finish($writer = $this->writer(), ['photos' => null]);

        $this->expectExceptionObject(Unopened::wrongPassphrase());
        (new EncryptedContent("{$this->folder}/b", $this->pgp('something else entirely')))->prove();
    }

    /** @param  callable(string): void  $harm */
    #[DataProvider('harms')]
    public function test_a_damaged_segment_is_named_by_its_digest_and_does_not_open(callable $harm): void
    {
        $this->write();
        $harm("{$this->folder}/b/data/photos-0001.tar.gpg");

        self::assertSame(
            ['data/photos-0001.tar.gpg altered'],
            array_map(
                static fn (Fault $f): string => "{$f->path} {$f->code->value}",
                array_values(
                    array_filter(
                        BagVerifier::verify("{$this->folder}/b")->faults,
                        static fn (Fault $f): bool => $f->code->value !== 'wrong-oxum',
                    ),
                ),
            ),
        );
        $this->expectException(Unopened::class);
        $this->content()->prove();
    }

    /** @return iterable<string, array{callable(string): void}> */
    public static function harms(): iterable
    {
        yield 'a flipped bit' => [static function (string $file): void {
            $text = (string) file_get_contents($file);
            $text[1500] = chr(ord($text[1500]) ^ 4);
            file_put_contents($file, $text);
        }];
        yield 'cut short' => [static function (string $file): void {
            $h = fopen($file, 'r+b');
            assert($h !== false);
            ftruncate($h, (int) filesize($file) - 300);
        }];
        yield 'emptied' => [static function (string $file): void {
            file_put_contents($file, '');
        }];
    }

    public function test_a_lowered_copy_shares_every_segment_and_opens_with_the_same_passphrase(): void
    {
        $this->write();
        $copy = Lowering::lower(
            "{$this->folder}/b",
            "{$this->folder}/low",
            Version::parse('8.7.0'),
            'low',
            Rfc3339::parse(Sample::NOW),
        );

        self::assertSame([5, '8.7.0'], [$copy->linkedFiles + 1, (string) $copy->description->declaredVersion]);
        self::assertFileEquals("{$this->folder}/b/manifest-sha256.txt", "{$this->folder}/low/manifest-sha256.txt");
        self::assertSame([], (new EncryptedContent("{$this->folder}/low", $this->pgp()))->prove());
    }

    public function test_nothing_is_overwritten(): void
    {
        $this->write();
        $this->expectException(WriteFailed::class);
        $this->writer();
    }

    #[DataProvider('passphrases')]
    public function test_weak_passphrases_are_refused_with_what_to_do(string $text, ?string $words): void
    {
        if ($words !== null) {
            $this->expectException(WeakPassphrase::class);
            $this->expectExceptionMessage($words);
        }
        self::assertSame($text, Passphrase::parse($text)->reveal());
    }

    /** @return iterable<string, array{string, string|null}> */
    public static function passphrases(): iterable
    {
        yield 'twelve characters' => ['zwölf Zeiche', null];
        yield 'eleven' => ['elf Zeichen', 'at least 12 characters'];
        yield 'nothing' => ['', 'at least 12 characters'];
        yield 'two lines' => ["harbour light\nlow tide", 'one line of text'];
        yield 'not UTF-8' => ["harbour light \xE9", 'one line of text'];
        yield 'far too long' => [str_repeat('a', 201), 'at most 200 bytes'];
    }

    public function test_six_words_are_offered_and_never_show_themselves(): void
    {
        $offered = Passphrase::offered(new \Random\Randomizer(new \Random\Engine\Mt19937(7)));

        self::assertMatchesRegularExpression('/\A[a-z]+( [a-z]+){5}\z/', $offered->reveal());
        self::assertStringNotContainsString($offered->reveal(), print_r($offered, true));
        $this->expectException(\LogicException::class);
        serialize($offered);
    }

    private function write(): void
    {
        $writer = $this->writer();
        foreach (Sample::contents() as $kind => $items) {
            foreach ($items as $path => $text) {
                $this->put($writer, $kind, $path, $text);
            }
        }
        $this->finish($writer, ['photos' => 9, 'contacts' => null, 'settings' => null]);
    }

    private function writer(int $segmentBytes = EncryptedBagWriter::SEGMENT_BYTES): EncryptedBagWriter
    {
        return EncryptedBagWriter::open("{$this->folder}/b", $this->pgp(), $segmentBytes);
    }

    private function pgp(string $passphrase = self::PASSPHRASE): OpenPgp
    {
        return new OpenPgp(sys_get_temp_dir().'/jade-step-test-gnupg-'.posix_geteuid(), Passphrase::parse($passphrase));
    }

    private function content(): EncryptedContent
    {
        return new EncryptedContent("{$this->folder}/b", $this->pgp());
    }

    private function put(EncryptedBagWriter $writer, string $kind, string $path, string $text): void
    {
        $item = self::item($kind, $path, $text);
        $put = $writer->put($item, Sample::stream($text));
        self::assertEquals($item->in((string) $put->segment), $put);
    }

    private static function item(string $kind, string $path, string $text): Item
    {
        return new Item($kind, $path, strlen($text), hash('sha256', $text), Rfc3339::parse('2026-11-01T12:00:00Z'));
    }

    /** @param  array<string, int|null>  $schemas */
    private function finish(EncryptedBagWriter $writer, array $schemas): void
    {
        $plain = Sample::description('b');
        $writer->finish(
            new BagDescription(
                'b',
                $plain->deviceSerial,
                $plain->hardwareId,
                $plain->osLine,
                $plain->madeOn,
                $plain->declaredVersion,
                $plain->takenAt,
                Encryption::OpenPgp,
                'before the weekend',
            ),
            $schemas,
        );
    }

    /** @return array<string, string> */
    private function contents(): array
    {
        $found = [];
        $this->content()->each(static function (Item $item, callable $read) use (&$found): void {
            $found[$item->key()] = '';
            while (($text = $read(1000)) !== '') {
                $found[$item->key()] .= $text;
            }
        });
        ksort($found, SORT_STRING);

        return $found;
    }

    /** @return array<string, string> */
    private static function flat(): array
    {
        $flat = [];
        foreach (Sample::contents() as $kind => $items) {
            foreach ($items as $path => $text) {
                $flat["{$kind}/{$path}"] = $text;
            }
        }
        ksort($flat, SORT_STRING);

        return $flat;
    }
}
