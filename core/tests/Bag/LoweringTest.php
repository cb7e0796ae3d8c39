<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\BagWriter;
use JadeStep\Core\Bag\Exception\LoweringRefused;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Internal\Manifest;
use JadeStep\Core\Bag\LoweredDifference;
use JadeStep\Core\Bag\Lowering;
use JadeStep\Core\Bag\PayloadSharing;
use JadeStep\Core\Bag\Seal;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class LoweringTest extends TestCase
{
    use TemporaryFolder;

    public function test_only_the_declared_version_differs_and_the_original_stays_untouched(): void
    {
        Sample::bag("{$this->folder}/b-17");
        Seal::close("{$this->folder}/b-17");
        $before = $this->fingerprint("{$this->folder}/b-17");

        $copy = $this->lower('8.7.0');

        self::assertSame($before, $this->fingerprint("{$this->folder}/b-17"));
        self::assertTrue(BagVerifier::verify("{$this->folder}/b-18")->isSound());
        self::assertFileEquals("{$this->folder}/b-17/manifest-sha256.txt", "{$this->folder}/b-18/manifest-sha256.txt");
        self::assertFileEquals("{$this->folder}/b-17/inventory.jsonl", "{$this->folder}/b-18/inventory.jsonl");
        self::assertSame(5, $copy->linkedFiles);
        self::assertSame(
            [
                '-Bagging-Date: 2026-11-19',
                '-External-Identifier: b-17',
                '-Declared-Version: 9.3.0',
                '+Bagging-Date: 2026-11-20',
                '+External-Identifier: b-18',
                '+Declared-Version: 8.7.0',
                '+Lowered-From: b-17',
                '+Lowered-At: 2026-11-20T09:00:00Z',
                '+Lowered-Payload: linked',
            ],
            $this->difference('bag-info.txt'),
        );
    }

    public function test_the_difference_that_is_shown_is_two_lines_beside_the_copys_own_name(): void
    {
        Sample::bag("{$this->folder}/b-17");
        $this->lower('8.7.0');

        $shown = LoweredDifference::between("{$this->folder}/b-17", "{$this->folder}/b-18");

        self::assertSame(
            [
                ['Declared-Version: 9.3.0'],
                ['Declared-Version: 8.7.0'],
                ['Bagging-Date', 'External-Identifier', 'Lowered-From', 'Lowered-At', 'Lowered-Payload'],
                true,
            ],
            [$shown->removed, $shown->added, $shown->own, $shown->samePayload],
        );
        file_put_contents(
            "{$this->folder}/b-18/bag-info.txt",
            str_replace(
                'Hardware-Id: FN7-2',
                'Hardware-Id: FN7-1',
                (string) file_get_contents("{$this->folder}/b-18/bag-info.txt"),
            ),
        );
        unlink("{$this->folder}/b-18/manifest-sha256.txt"); // its bytes are shared with the original
        file_put_contents("{$this->folder}/b-18/manifest-sha256.txt", "another\n");
        $tampered = LoweredDifference::between("{$this->folder}/b-17", "{$this->folder}/b-18");
        self::assertSame(
            [['Hardware-Id: FN7-2', 'Declared-Version: 9.3.0'], false],
            [$tampered->removed, $tampered->samePayload],
        );
        $this->expectException(NotABag::class);
        LoweredDifference::between("{$this->folder}/b-17", "{$this->folder}/gone");
    }

    public function test_the_payload_is_shared_and_not_copied(): void
    {
        Sample::bag("{$this->folder}/b-17");

        $this->lower('8.7.0');

        foreach (Sample::contents() as $kind => $items) {
            foreach (array_keys($items) as $path) {
                self::assertSame(
                    fileinode("{$this->folder}/b-17/data/{$kind}/{$path}"),
                    fileinode("{$this->folder}/b-18/data/{$kind}/{$path}"),
                );
            }
        }
    }

    public function test_a_bag_that_is_low_enough_is_refused(): void
    {
        Sample::bag("{$this->folder}/b-17");

        $this->expectExceptionObject(LoweringRefused::notLower(Version::parse('9.3.0'), Version::parse('9.3.0')));

        $this->lower('9.3.0');
    }

    public function test_a_folder_that_is_there_is_never_overwritten(): void
    {
        Sample::bag("{$this->folder}/b-17");
        mkdir("{$this->folder}/b-18");

        $this->expectException(LoweringRefused::class);
        $this->expectExceptionMessage('is there already');

        $this->lower('8.7.0');
    }

    public function test_a_bag_whose_tag_files_were_changed_is_refused(): void
    {
        Sample::bag("{$this->folder}/b-17");
        file_put_contents("{$this->folder}/b-17/bag-info.txt", "Note: by hand\n", FILE_APPEND);

        $this->expectException(LoweringRefused::class);
        $this->expectExceptionMessage('bag-info.txt: its bytes are not those that were backed up');

        $this->lower('8.7.0');
    }

    public function test_what_a_killed_lowering_left_is_in_nobodys_way(): void
    {
        Sample::bag("{$this->folder}/b-17");
        mkdir("{$this->folder}/b-18.writing/bag/data/photos", recursive: true);
        file_put_contents("{$this->folder}/b-18.writing/bag/data/photos/half.jpg", 'half');
        file_put_contents("{$this->folder}/b-18.writing/.purpose", 'lowering b-17 to 8.7.0 as b-18');

        $this->lower('8.7.0');

        self::assertSame([], BagVerifier::verify("{$this->folder}/b-18")->faults);
        self::assertFileDoesNotExist("{$this->folder}/b-18.writing");
    }

    #[DataProvider('strangers')]
    public function test_a_work_folder_that_it_did_not_begin_is_left_alone(callable $lay): void
    {
        Sample::bag("{$this->folder}/b-17");
        $lay("{$this->folder}/b-18.writing");
        $before = $this->fingerprint($this->folder);

        try {
            $this->lower('8.7.0');
            self::fail('It was lowered.');
        } catch (LoweringRefused $e) {
            self::assertStringContainsString('was not begun by this work', $e->getMessage());
        }

        self::assertSame($before, $this->fingerprint($this->folder));
    }

    /** @return iterable<string, array{callable(string): mixed}> */
    public static function strangers(): iterable
    {
        yield 'a backup that is being written' => [static function (string $work): void {
            $writer = BagWriter::open(substr($work, 0, -strlen('.writing')));
            $writer->put('notes', 'a.md', Rfc3339::parse(Sample::NOW), Sample::stream('a'));
            $writer->pause();
        }];
        yield 'anything' => [static function (string $work): void {
            mkdir("{$work}/mine", recursive: true);
            file_put_contents("{$work}/mine/thesis.txt", 'years');
        }];
        yield 'a file' => [static fn (string $work): mixed => file_put_contents($work, 'x')];
        yield 'another lowering' => [static function (string $work): void {
            mkdir($work);
            file_put_contents("{$work}/.purpose", 'lowering b-9 to 8.7.0 as b-18');
        }];
    }

    /** @param  callable(string): string  $into  given the folder of the tests, in which the bag b-17 lies */
    #[DataProvider('nestings')]
    public function test_a_copy_in_the_bag_itself_is_refused_by_whatever_name(callable $into): void
    {
        Sample::bag("{$this->folder}/b-17");
        symlink("{$this->folder}/b-17/data", "{$this->folder}/way-in");
        symlink($this->folder, "{$this->folder}/round");
        $target = $into($this->folder);
        $before = $this->fingerprint("{$this->folder}/b-17");

        try {
            Lowering::lower(
                "{$this->folder}/b-17",
                $target,
                Version::parse('8.7.0'),
                'b-18',
                Rfc3339::parse(Sample::NOW),
            );
            self::fail('It was lowered.');
        } catch (LoweringRefused $e) {
            self::assertStringContainsString('outside of it', $e->getMessage());
        }

        self::assertSame($before, $this->fingerprint("{$this->folder}/b-17"));
    }

    /** @return iterable<string, array{callable(string): string}> */
    public static function nestings(): iterable
    {
        yield 'a folder in it' => [static fn (string $f): string => "{$f}/b-17/low"];
        yield 'a folder in its payload' => [static fn (string $f): string => "{$f}/b-17/data/low"];
        yield 'folders that are to be made on the way' => [static fn (string $f): string => "{$f}/b-17/a/b/low"];
        yield 'by a link' => [static fn (string $f): string => "{$f}/way-in/low"];
        yield 'by a link round to it' => [static fn (string $f): string => "{$f}/round/b-17/data/photos/low"];
        yield 'by dots' => [static fn (string $f): string => "{$f}/b-17/../b-17/./low"];
        yield 'by dots after what is not there' => [static fn (string $f): string => "{$f}/nowhere/../b-17/low"];
    }

    /** @param  callable(string): mixed  $damage  given the bag's folder */
    #[DataProvider('structures')]
    public function test_a_bag_with_a_fault_in_its_structure_is_refused(callable $damage): void
    {
        Sample::bag("{$this->folder}/b-17");
        $damage("{$this->folder}/b-17");

        try {
            $this->lower('8.7.0');
            self::fail('It was lowered.');
        } catch (LoweringRefused $e) {
            self::assertStringContainsString('no copy is made of it', $e->getMessage());
        }

        self::assertFileDoesNotExist("{$this->folder}/b-18");
        self::assertFileDoesNotExist("{$this->folder}/b-18.writing");
    }

    /** @return iterable<string, array{callable(string): mixed}> */
    public static function structures(): iterable
    {
        yield 'a file is gone' => [static fn (string $bag): mixed => unlink("{$bag}/data/contacts/una.vcf")];
        yield 'a file too many' => [static fn (string $bag): mixed => touch("{$bag}/data/contacts/teo.vcf")];
        yield 'a link in the payload' => [static fn (string $bag): mixed => symlink('/etc', "{$bag}/data/etc")];
        yield 'a link for the payload' => [static function (string $bag): void {
            rename("{$bag}/data", "{$bag}-data");
            symlink("{$bag}-data", "{$bag}/data");
        }];
        yield 'a pipe in the payload' => [static fn (string $bag): mixed => posix_mkfifo("{$bag}/data/pipe", 0o600)];
        yield 'a file too many beside it' => [static fn (string $bag): mixed => touch("{$bag}/note.txt")];
        yield 'no tag manifest' => [static fn (string $bag): mixed => unlink("{$bag}/tagmanifest-sha256.txt")];
    }

    public function test_other_tag_files_and_labels_are_kept(): void
    {
        $bag = "{$this->folder}/b-17";
        Sample::bag($bag);
        mkdir("{$bag}/depot");
        file_put_contents("{$bag}/depot/tide.txt", 'high at noon');
        file_put_contents("{$bag}/123", 'a tag file of this name');
        file_put_contents(
            "{$bag}/bag-info.txt",
            "Contact-Name: Maren Dow\r\nExternal-Description: Two lines\n  of it\n"
                .file_get_contents("{$bag}/bag-info.txt")."Contact-Name: Teo Lind\n",
        );
        $digests = [];
        $own = ['bag-info.txt', 'bagit.txt', 'inventory.jsonl', 'manifest-sha256.txt'];
        foreach ([...$own, 'depot/tide.txt', '123'] as $name) {
            $digests["{$name}"] = (string) hash_file('sha256', "{$bag}/{$name}");
        }
        file_put_contents("{$bag}/tagmanifest-sha256.txt", Manifest::render($digests));
        $more = '';
        foreach (array_keys($digests) as $name) {
            $more .= hash_file('sha512', "{$bag}/{$name}")."  {$name}\n";
        }
        file_put_contents("{$bag}/tagmanifest-sha512.txt", $more);
        self::assertSame([], BagVerifier::verify($bag)->faults);

        $this->lower('8.7.0');

        self::assertSame([], BagVerifier::verify("{$this->folder}/b-18")->faults);
        self::assertFileEquals("{$bag}/depot/tide.txt", "{$this->folder}/b-18/depot/tide.txt");
        self::assertFileEquals("{$bag}/123", "{$this->folder}/b-18/123");
        self::assertFileExists("{$this->folder}/b-18/tagmanifest-sha512.txt");
        $info = (string) file_get_contents("{$this->folder}/b-18/bag-info.txt");
        self::assertStringStartsWith("Contact-Name: Maren Dow\nExternal-Description: Two lines\n  of it\n", $info);
        self::assertStringContainsString("\nContact-Name: Teo Lind\nLowered-From: b-17\n", $info);
        self::assertSame(1, substr_count($info, 'Declared-Version: '));
    }

    public function test_the_copy_says_whether_it_shares_its_bytes(): void
    {
        Sample::bag("{$this->folder}/b-17");
        $copy = $this->lower('8.7.0');
        $same = fileinode("{$this->folder}/b-17/data/contacts/una.vcf")
            === fileinode("{$this->folder}/b-18/data/contacts/una.vcf");

        self::assertSame($same, $copy->description->loweredPayload === PayloadSharing::Linked);
        self::assertSame(
            $copy->description->loweredPayload,
            BagReader::open("{$this->folder}/b-18")->description()->loweredPayload,
        );
        self::assertSame($same ? 5 : 0, $copy->linkedFiles);
    }

    private function lower(string $to): \JadeStep\Core\Bag\LoweredCopy
    {
        return Lowering::lower(
            "{$this->folder}/b-17",
            "{$this->folder}/b-18",
            Version::parse($to),
            'b-18',
            Rfc3339::parse(Sample::NOW),
        );
    }

    /** @return array<string, string> digest, rights and time of every file but the count of links to it */
    private function fingerprint(string $bag): array
    {
        clearstatcache();
        $prints = [];
        $entries = new \RecursiveDirectoryIterator($bag, \FilesystemIterator::SKIP_DOTS);
        foreach (new \RecursiveIteratorIterator($entries) as $file) {
            $prints[$file->getPathname()] =
                hash_file('sha256', $file->getPathname()).decoct($file->getPerms()).$file->getMTime();
        }
        ksort($prints);

        return $prints;
    }

    /** @return list<string> */
    private function difference(string $name): array
    {
        $lines = fn (string $bag): array => file("{$this->folder}/{$bag}/{$name}", FILE_IGNORE_NEW_LINES) ?: [];

        return [
            ...array_map(
                static fn (string $l): string => "-{$l}",
                array_values(array_diff($lines('b-17'), $lines('b-18'))),
            ),
            ...array_map(
                static fn (string $l): string => "+{$l}",
                array_values(array_diff($lines('b-18'), $lines('b-17'))),
            ),
        ];
    }
}
