<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Exception\LoweringRefused;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\LoweredDifference;
use JadeStep\Core\Bag\Lowering;
use JadeStep\Core\Bag\Seal;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
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
                ['Bagging-Date', 'External-Identifier', 'Lowered-From', 'Lowered-At'],
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
        $this->expectExceptionMessage('bag-info.txt is not as it was written');

        $this->lower('8.7.0');
    }

    public function test_what_a_killed_lowering_left_is_in_nobodys_way(): void
    {
        Sample::bag("{$this->folder}/b-17");
        mkdir("{$this->folder}/b-18.writing/data/photos", recursive: true);
        file_put_contents("{$this->folder}/b-18.writing/data/photos/half.jpg", 'half');

        $this->lower('8.7.0');

        self::assertSame([], BagVerifier::verify("{$this->folder}/b-18")->faults);
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
