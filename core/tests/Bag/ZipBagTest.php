<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Exception\UntrustedArchive;
use JadeStep\Core\Bag\ImportLimits;
use JadeStep\Core\Bag\ZipBag;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Bags that come as ZIP: a good one is unpacked, everything else is named and leaves nothing behind. */
final class ZipBagTest extends TestCase
{
    use TemporaryFolder;

    public function test_a_zipped_bag_is_unpacked_and_sound(): void
    {
        Sample::bag("{$this->folder}/b-17");
        exec('cd '.escapeshellarg($this->folder).' && python3 -m zipfile -c bag.zip b-17');

        $bag = ZipBag::unpack("{$this->folder}/bag.zip", "{$this->folder}/in", new ImportLimits(100, 1_000_000, 100));

        self::assertSame("{$this->folder}/in/b-17", $bag);
        self::assertTrue(BagVerifier::verify($bag)->isSound());
    }

    /** @param  callable(\ZipArchive): void  $fill */
    #[DataProvider('badArchives')]
    public function test_a_bad_archive_is_named_and_nothing_of_it_is_kept(
        string $reason,
        callable $fill,
        ?callable $harm = null,
    ): void {
        $file = "{$this->folder}/bad.zip";
        $zip = new \ZipArchive;
        $zip->open($file, \ZipArchive::CREATE);
        $zip->addFromString('b/bagit.txt', "BagIt-Version: 1.0\n");
        $fill($zip);
        $zip->close();
        $harm === null ?: file_put_contents($file, $harm((string) file_get_contents($file)));
        $before = scandir($this->folder);

        try {
            ZipBag::unpack($file, "{$this->folder}/in", new ImportLimits(20, 5_000_000, 100));
            self::fail('It was unpacked.');
        } catch (UntrustedArchive $e) {
            self::assertSame($reason, $e->reason, $e->getMessage());
        }
        self::assertSame($before, scandir($this->folder), 'nothing is left, and nothing was written elsewhere');
        self::assertFileDoesNotExist(dirname($this->folder).'/out.txt');
    }

    /** @return iterable<string, array{0: string, 1: callable(\ZipArchive): void, 2?: callable(string): string}> */
    public static function badArchives(): iterable
    {
        $add = static fn (string $name, string $text = 'x'): callable => static function (\ZipArchive $z) use (
            $name,
            $text,
        ): void {
            $z->addFromString($name, $text);
        };
        yield 'a way out by dots' => ['unsafe-path', $add('b/../../out.txt')];
        yield 'a way out at the top' => ['unsafe-path', $add('../out.txt')];
        yield 'an absolute path' => ['unsafe-path', $add('/tmp/out.txt')];
        yield 'a drive letter' => ['unsafe-path', $add('c:/out.txt')];
        yield 'a backslash' => ['unsafe-path', $add('b\\out.txt')];
        yield 'a control character' => ['unsafe-path', $add("b/a\nb")];
        yield 'another encoding' => [
            'unsafe-path',
            $add('b/AB.txt'),
            static fn (string $raw): string => str_replace('b/AB.txt', "b/\xE9\xE8.txt", $raw),
        ];
        yield 'a link' => [
            'link',
            static function (\ZipArchive $z): void {
                $z->addFromString('b/data/link', '/etc/passwd');
                $z->setExternalAttributesName('b/data/link', \ZipArchive::OPSYS_UNIX, 0o120777 << 16);
            },
        ];
        yield 'a device file' => [
            'special-file',
            static function (\ZipArchive $z): void {
                $z->addFromString('b/data/null', '');
                $z->setExternalAttributesName('b/data/null', \ZipArchive::OPSYS_UNIX, 0o020666 << 16);
            },
        ];
        yield 'two top folders' => ['not-one-folder', $add('c/other.txt')];
        yield 'a file at the top' => ['not-one-folder', $add('readme.txt')];
        yield 'a name twice' => [
            'duplicate',
            $add('b/data/bbbb'),
            static fn (string $raw): string => str_replace('b/data/bbbb', 'b/bagit.txt', $raw),
        ];
        yield 'encrypted by the archive' => ['zip-encryption', static function (\ZipArchive $z): void {
            $z->addFromString('b/data/secret', 'x');
            $z->setEncryptionName('b/data/secret', \ZipArchive::EM_AES_256, 'password');
        }];
        yield 'too many entries' => ['too-many', static function (\ZipArchive $z): void {
            foreach (range(1, 30) as $i) {
                $z->addFromString("b/data/{$i}", '');
            }
        }];
        yield 'more than there is room for' => ['too-large', static function (\ZipArchive $z): void {
            $z->addFromString('b/data/large', random_bytes(6_000_000));
        }];
        yield 'a bomb' => ['bomb', $add('b/data/zeros', str_repeat("\0", 4_500_000))];
        yield 'a byte that is another' => ['damaged-entry', static function (\ZipArchive $z): void {
            $z->addFromString('b/data/stored', 'the lines were checked');
            $z->setCompressionName('b/data/stored', \ZipArchive::CM_STORE);
        }, static fn (string $raw): string => str_replace('the lines were checked', 'the lines were chopped', $raw)];
        yield 'no archive at all' => ['unreadable', $add('b/x'), static fn (): string => 'PK is all it has'];
        yield 'cut short' => ['unreadable', $add('b/x'), static fn (string $raw): string => substr($raw, 0, -30)];
    }
}
