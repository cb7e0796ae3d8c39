<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\BagName;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\BagWriter;
use JadeStep\Core\Bag\EncryptedBagWriter;
use JadeStep\Core\Bag\EncryptedContent;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\UnsafePath;
use JadeStep\Core\Bag\ImportLimits;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\OpenPgp;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Bag\PlainContent;
use JadeStep\Core\Bag\Writer;
use JadeStep\Core\Bag\ZipBag;
use JadeStep\Core\Copied;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use PHPUnit\Framework\TestCase;

/** Whatever a device calls an item: it is carried, under a name that nothing takes amiss, and read back as it was. */
final class NamesTest extends TestCase
{
    use TemporaryFolder;

    /** @return list<string> each an item of its own */
    private static function names(): array
    {
        return [
            'plain.jpg',
            'album/deck 1.jpg',
            '~home.jpg',
            'album/~/x.jpg',
            'C:boat.jpg',
            'album/D:/boat.jpg',
            'back\\slash.jpg',
            "line\nend.jpg",
            "tab\tand\x01bell\x07.jpg",
            "next\u{85}line.jpg",
            '../../etc/passwd',
            '/etc/hostname',
            './dot.jpg',
            'a//b.jpg',
            'ends/',
            '..',
            'Boat.JPG',
            'boat.jpg',
            'BOAT.jpg',
            "caf\u{E9}.txt",
            "cafe\u{301}.txt",
            'STRASSE',
            "stra\u{DF}e",
            'tide',
            'tide/table.txt',
            'Tide/other.txt',
            str_repeat('long ', 60).'.jpg',
            str_repeat('deep/', 300).'x',
            '123',
            '-rf',
            '100%.jpg',
            '%0A',
            "\u{202E}gpj.exe",
        ];
    }

    public function test_a_lowered_copy_is_called_otherwise_than_its_original_and_fits(): void
    {
        $long = str_repeat('Ä', 250);
        $copy = BagName::ofCopy($long, Version::parse('8.7.0'));

        self::assertSame('Evening, lowered to 8.7', BagName::ofCopy('Evening', Version::parse('8.7.0')));
        self::assertSame(BagName::LONGEST + strlen(', lowered to 8.7'), mb_strlen($copy));
        self::assertSame(
            [false, true, false],
            [
                BagName::areAlike($long, $copy),
                BagName::areAlike(' evening ÅS ', 'Evening ås'),
                BagName::areAlike('Evening', 'Evening 2'),
            ],
        );
    }

    public function test_a_plain_bag_carries_every_name(): void
    {
        $this->write(BagWriter::open("{$this->folder}/b"), Sample::description('b'));

        self::assertSame([], BagVerifier::verify("{$this->folder}/b")->faults);
        self::assertSame(self::contents(), self::read("{$this->folder}/b"));
        self::assertSame('plain.jpg', file_get_contents("{$this->folder}/b/data/photos/plain.jpg"));
        self::assertFileExists("{$this->folder}/b/data/photos/album/deck 1.jpg");
        foreach ($this->files("{$this->folder}/b/data") as $file) {
            self::assertDoesNotMatchRegularExpression('#[\\\\\x00-\x1F\x7F]|(?:\A|/)(?:~|[A-Za-z]:)#', $file);
        }
    }

    public function test_the_same_bag_is_read_from_a_zip(): void
    {
        $this->write(BagWriter::open("{$this->folder}/b"), Sample::description('b'));
        $zip = new \ZipArchive;
        $zip->open("{$this->folder}/b.zip", \ZipArchive::CREATE);
        foreach ($this->files("{$this->folder}/b") as $file) {
            $zip->addFile("{$this->folder}/b/{$file}", "b/{$file}");
        }
        $zip->close();

        $there = ZipBag::unpack("{$this->folder}/b.zip", "{$this->folder}/in", ImportLimits::usual(1_000_000_000));

        self::assertSame([], BagVerifier::verify($there)->faults);
        self::assertSame(self::contents(), self::read($there));
    }

    public function test_no_two_files_differ_by_case_or_unicode_form_alone(): void
    {
        $this->write(BagWriter::open("{$this->folder}/b"), Sample::description('b'));
        $compared = array_map(
            static fn (string $f): string => mb_convert_case((string) \Normalizer::normalize($f), MB_CASE_FOLD),
            $this->files("{$this->folder}/b/data"),
        );

        self::assertSame($compared, array_unique($compared));
        self::assertCount(count(self::names()), $compared);
    }

    public function test_a_writer_that_goes_on_keeps_the_names_it_gave(): void
    {
        $first = BagWriter::open("{$this->folder}/b");
        foreach (array_slice(self::names(), 0, 20) as $name) {
            $first->put('photos', $name, Rfc3339::parse(Sample::NOW), Sample::stream($name));
        }
        $first->pause();
        $this->write(BagWriter::open("{$this->folder}/b"), Sample::description('b'));

        self::assertSame([], BagVerifier::verify("{$this->folder}/b")->faults);
        self::assertSame(self::contents(), self::read("{$this->folder}/b"));
    }

    public function test_an_encrypted_bag_carries_every_name_and_its_tar_is_safe_to_unpack(): void
    {
        $pgp = new OpenPgp("{$this->folder}/gnupg", Passphrase::parse('harbour light at low tide'));
        $this->write(
            EncryptedBagWriter::open("{$this->folder}/b", $pgp),
            Copied::with(Sample::description('b'), encryption: Encryption::OpenPgp),
        );
        $content = new EncryptedContent("{$this->folder}/b", $pgp);
        $found = [];
        $content->each(static function (Item $item, callable $read) use (&$found): void {
            $found[$item->path] = '';
            while (($text = $read(1000)) !== '') {
                $found[$item->path] .= $text;
            }
        });
        ksort($found, SORT_STRING);

        self::assertSame([], $content->prove());
        self::assertSame(self::contents(), $found);
    }

    public function test_a_name_that_no_inventory_can_hold_is_refused(): void
    {
        $writer = BagWriter::open("{$this->folder}/b");

        foreach (['', "\xFF\xFE.jpg", str_repeat('x', 8193)] as $name) {
            try {
                $writer->put('photos', $name, Rfc3339::parse(Sample::NOW), Sample::stream('x'));
                self::fail('It was written.');
            } catch (UnsafePath $e) {
                self::assertStringContainsString('is empty, too long, or not UTF-8', $e->getMessage());
            }
        }
    }

    private function write(Writer $writer, \JadeStep\Core\Bag\BagDescription $description): void
    {
        foreach (self::names() as $name) {
            $listed = new Item('photos', $name, strlen($name), hash('sha256', $name), Rfc3339::parse(Sample::NOW));
            if (! $writer->has($listed)) {
                $writer->take($listed, Sample::stream($name));
            }
        }
        $writer->finish($description, ['photos' => 9]);
    }

    /** @return array<string, string> every item holds its own name */
    private static function contents(): array
    {
        $contents = array_combine(self::names(), self::names());
        ksort($contents, SORT_STRING);

        return $contents;
    }

    /** @return array<string, string> */
    private static function read(string $bag): array
    {
        $found = [];
        $keep = static function (Item $item, callable $read) use (&$found): void {
            $found[$item->path] = $read(10_000);
        };
        (new PlainContent(BagReader::open($bag)))->each($keep);
        ksort($found, SORT_STRING);

        return $found;
    }

    /** @return list<string> */
    private function files(string $folder): array
    {
        $files = [];
        $walk = new \RecursiveIteratorIterator(
            new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS),
        );
        foreach ($walk as $file) {
            $files[] = substr($file->getPathname(), strlen($folder) + 1);
        }

        return $files;
    }
}
