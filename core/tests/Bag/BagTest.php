<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\BagWriter;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Exception\WriteFailed;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;
use JadeStep\Core\Bag\Internal\Manifest;
use JadeStep\Core\Bag\Internal\OrderedBag;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\KindHeader;
use JadeStep\Core\Bag\Seal;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class BagTest extends TestCase
{
    use TemporaryFolder;

    public function test_a_written_bag_is_sound_and_says_what_it_is(): void
    {
        Sample::bag("{$this->folder}/b-17");

        $report = BagVerifier::verify("{$this->folder}/b-17");

        self::assertSame([], $report->faults);
        self::assertEquals(Sample::description(), $report->description);
        self::assertSame(['photos' => 2, 'contacts' => 1, 'settings' => 2], $report->counts);
        self::assertSame([5, 20_049], [$report->files, $report->bytes]);
    }

    public function test_its_inventory_gives_every_item_with_the_digest_of_its_content(): void
    {
        Sample::bag("{$this->folder}/b-17");

        $reader = BagReader::open("{$this->folder}/b-17");
        $seen = [];
        foreach ($reader->inventory()->items as $item) {
            $seen[$item->kind][$item->path] = stream_get_contents($reader->content($item));
            self::assertSame(hash('sha256', (string) $seen[$item->kind][$item->path]), $item->sha256);
            self::assertSame('2026-11-01T12:00:00Z', Rfc3339::format($item->modifiedAt));
        }

        $expected = Sample::contents();
        array_walk($expected, static function (array &$items): void {
            ksort($items, SORT_STRING);
        });
        self::assertSame($expected, $seen);
    }

    public function test_nothing_stands_under_the_bags_name_before_it_is_whole(): void
    {
        $writer = BagWriter::open("{$this->folder}/b-1");
        $writer->put('notes', 'a.md', Rfc3339::parse(Sample::NOW), Sample::stream('a'));

        self::assertDirectoryDoesNotExist("{$this->folder}/b-1");

        $writer->finish(Sample::description('b-1'), ['notes' => null]);

        self::assertTrue(BagVerifier::verify("{$this->folder}/b-1")->isSound());
        self::assertDirectoryDoesNotExist("{$this->folder}/b-1.writing");
    }

    public function test_a_killed_writing_goes_on_with_what_is_whole(): void
    {
        $time = Rfc3339::parse(Sample::NOW);
        $first = BagWriter::open("{$this->folder}/b-1");
        $a = $first->put('notes', 'a.md', $time, Sample::stream('a'));
        $b = $first->put('notes', 'b.md', $time, Sample::stream('bb'));
        // a kill can tear the log's last line, cut a file short, and leave a file that no line names
        file_put_contents("{$this->folder}/b-1.writing/items.log", '["notes","c.md",1,"ab', FILE_APPEND);
        file_put_contents("{$this->folder}/b-1.writing/bag/data/notes/b.md", 'b');
        file_put_contents("{$this->folder}/b-1.writing/bag/data/notes/stray.md", 'stray');

        unset($first); // whoever dies lets go of the work folder

        $second = BagWriter::open("{$this->folder}/b-1");
        self::assertSame([true, false], [$second->has($a), $second->has($b)]);
        $second->put('notes', 'b.md', $time, Sample::stream('bb'));
        $inventory = $second->finish(Sample::description('b-1'), ['notes' => null]);

        self::assertSame(['a.md', 'b.md'], array_column($inventory->items->first(9), 'path'));
        self::assertSame([], BagVerifier::verify("{$this->folder}/b-1")->faults);
    }

    /** The quick way and the slower one say the same of a bag that is sound; this is what the quick one is for. */
    public function test_a_bag_in_order_and_the_same_bag_in_another_order_are_both_sound(): void
    {
        $time = Rfc3339::parse(Sample::NOW);
        $writer = BagWriter::open("{$this->folder}/b");
        foreach (['100%.txt', '~draft', 'å "b".md', 'A.md', 'a.md', 'deep/er/x', 'deep/er-1', 'C:x'] as $path) {
            $writer->put('notes', $path, $time, Sample::stream($path));
        }
        $writer->put('contacts', 'una.vcf', $time, Sample::stream('una'));
        $writer->finish(Sample::description('b'), ['notes' => null, 'contacts' => 2]);
        $bag = OrderedBag::open("{$this->folder}/b");
        self::assertNotNull($bag);
        self::assertSame(9, iterator_count($bag->files()));
        self::assertTrue($bag->fits);
        self::assertTrue($bag->inventoryFits());
        $quick = BagVerifier::verify("{$this->folder}/b");

        $lines = file("{$this->folder}/b/manifest-sha256.txt");
        self::assertNotFalse($lines);
        $before = (string) hash_file('sha256', "{$this->folder}/b/manifest-sha256.txt");
        file_put_contents("{$this->folder}/b/manifest-sha256.txt", implode('', array_reverse($lines)));
        $after = (string) hash_file('sha256', "{$this->folder}/b/manifest-sha256.txt");
        $tags = (string) file_get_contents("{$this->folder}/b/tagmanifest-sha256.txt");
        file_put_contents("{$this->folder}/b/tagmanifest-sha256.txt", str_replace($before, $after, $tags));
        $other = OrderedBag::open("{$this->folder}/b");
        self::assertNotNull($other);
        self::assertLessThan(9, iterator_count($other->files()));
        self::assertFalse($other->fits);

        self::assertSame([[], ['notes' => 8, 'contacts' => 1]], [$quick->faults, $quick->counts]);
        self::assertEquals($quick, BagVerifier::verify("{$this->folder}/b"));
    }

    public function test_an_item_that_the_device_no_longer_lists_is_left_out(): void
    {
        $time = Rfc3339::parse(Sample::NOW);
        $writer = BagWriter::open("{$this->folder}/b-1");
        $kept = $writer->put('notes', 'a.md', $time, Sample::stream('a'));
        $writer->put('notes', 'gone.md', $time, Sample::stream('gone'));

        $writer->dropAllBut(Inventory::of([new KindHeader('notes', 1, null)], [$kept]));
        $writer->finish(Sample::description('b-1'), ['notes' => null]);

        self::assertSame(['notes' => 1], BagVerifier::verify("{$this->folder}/b-1")->counts);
    }

    public function test_a_kind_of_which_there_is_nothing_is_listed_with_none(): void
    {
        $writer = BagWriter::open("{$this->folder}/b-1");
        $writer->put('notes', 'a.md', Rfc3339::parse(Sample::NOW), Sample::stream('a'));
        $inventory = $writer->finish(Sample::description('b-1'), ['notes' => null, 'photos' => 9]);

        self::assertSame(
            [['notes', 1, null], ['photos', 0, 9]],
            array_map(static fn (KindHeader $k): array => [$k->kind, $k->items, $k->storeSchema], $inventory->kinds),
        );
    }

    public function test_a_fault_says_where_and_what_and_more_only_where_there_is_more(): void
    {
        self::assertSame(
            [
                'data/notes/a.md: listed, but not there',
                'data/notes/a.md: its bytes are not those that were backed up (sha256)',
            ],
            [
                Fault::of(FaultCode::Missing, 'data/notes/a.md')->message(),
                Fault::of(FaultCode::Altered, 'data/notes/a.md', 'sha256')->message(),
            ],
        );
    }

    public function test_nothing_is_ever_overwritten(): void
    {
        Sample::bag("{$this->folder}/b-17");

        $this->expectException(WriteFailed::class);
        $this->expectExceptionMessage('nothing is ever overwritten');

        BagWriter::open("{$this->folder}/b-17");
    }

    /** @param  callable(string): void  $damage */
    #[DataProvider('damages')]
    public function test_every_damage_is_named(callable $damage, string ...$expected): void
    {
        Sample::bag("{$this->folder}/b-17");
        $damage("{$this->folder}/b-17");

        $faults = array_map(
            static fn (Fault $f): string => $f->code->value.' '.$f->path,
            BagVerifier::verify("{$this->folder}/b-17")->faults,
        );

        self::assertEqualsCanonicalizing($expected, $faults);
    }

    /** @return iterable<string, array<mixed>> */
    public static function damages(): iterable
    {
        $rewriteTags = static function (string $bag): void {
            $digests = [];
            foreach (['bag-info.txt', 'bagit.txt', 'inventory.jsonl', 'manifest-sha256.txt'] as $name) {
                $digests[$name] = (string) hash_file('sha256', "{$bag}/{$name}");
            }
            file_put_contents("{$bag}/tagmanifest-sha256.txt", Manifest::render($digests));
        };
        $edit = static fn (string $name, callable $change): callable => static function (string $bag) use (
            $name,
            $change,
            $rewriteTags,
        ): void {
            file_put_contents("{$bag}/{$name}", $change((string) file_get_contents("{$bag}/{$name}")));
            $rewriteTags($bag);
        };
        yield 'one flipped bit' => [
            static function (string $bag): void {
                $text = (string) file_get_contents("{$bag}/data/photos/album/deck 1.jpg");
                $text[777] = chr(ord($text[777]) ^ 1);
                file_put_contents("{$bag}/data/photos/album/deck 1.jpg", $text);
            },
            'altered data/photos/album/deck 1.jpg',
        ];
        yield 'a file is gone' => [
            static fn (string $bag) => unlink("{$bag}/data/contacts/una.vcf"),
            'missing data/contacts/una.vcf',
            'wrong-oxum bag-info.txt',
        ];
        yield 'a file too many' => [
            static fn (string $bag) => file_put_contents("{$bag}/data/contacts/teo.vcf", 'x'),
            'unlisted data/contacts/teo.vcf',
            'wrong-oxum bag-info.txt',
        ];
        yield 'a file too many beside the payload' => [
            static fn (string $bag) => file_put_contents("{$bag}/readme.txt", 'x'),
            'unlisted readme.txt',
        ];
        yield 'a link in the place of a file' => [
            static function (string $bag): void {
                unlink("{$bag}/data/contacts/una.vcf");
                symlink('/etc/hostname', "{$bag}/data/contacts/una.vcf");
            },
            'link data/contacts/una.vcf',
            'wrong-oxum bag-info.txt',
        ];
        yield 'a description changed by hand' => [
            static fn (string $bag) => file_put_contents(
                "{$bag}/bag-info.txt",
                str_replace(
                    'Declared-Version: 9.3.0',
                    'Declared-Version: 8.7.0',
                    (string) file_get_contents("{$bag}/bag-info.txt"),
                ),
            ),
            'altered bag-info.txt',
        ];
        yield 'no manifest' => [
            static fn (string $bag) => unlink("{$bag}/manifest-sha256.txt"),
            'missing manifest-sha256.txt',
            'missing manifest-sha256.txt',
            'unlisted data/photos/album/deck 1.jpg',
            'unlisted data/photos/album/100%.jpg',
            'unlisted data/contacts/una.vcf',
            'unlisted data/settings/system/about.json',
            'unlisted data/settings/user/ålesund.json',
            'inventory-differs inventory.jsonl',
            'inventory-differs data/photos/album/deck 1.jpg',
            'inventory-differs data/photos/album/100%.jpg',
            'inventory-differs data/contacts/una.vcf',
            'inventory-differs data/settings/system/about.json',
            'inventory-differs data/settings/user/ålesund.json',
        ];
        yield 'no tag manifest, as an unfinished bag has none' => [
            static fn (string $bag) => unlink("{$bag}/tagmanifest-sha256.txt"),
            'missing tagmanifest-sha256.txt',
            'unlisted bag-info.txt',
            'unlisted bagit.txt',
            'unlisted inventory.jsonl',
            'unlisted manifest-sha256.txt',
        ];
        yield 'another version of the standard' => [
            $edit('bagit.txt', static fn (string $t): string => str_replace('1.0', '7.0', $t)),
            'bad-declaration bagit.txt',
        ];
        yield 'another encoding' => [
            $edit('bagit.txt', static fn (string $t): string => str_replace('UTF-8', 'UTF-16', $t)),
            'bad-declaration bagit.txt',
        ];
        yield 'files left to be fetched' => [
            static fn (string $bag) => file_put_contents("{$bag}/fetch.txt", 'https://elsewhere.example/a 1 data/a'),
            'missing data/a',
            'unlisted fetch.txt',
        ];
        yield 'a path that climbs out' => [
            $edit(
                'manifest-sha256.txt',
                static fn (string $t): string => $t.str_repeat('a', 64)."  data/../../evil\n",
            ),
            'unsafe-path data/../../evil',
        ];
        yield 'an absolute path' => [
            $edit(
                'manifest-sha256.txt',
                static fn (string $t): string => $t.str_repeat('a', 64)."  /etc/hostname\n",
            ),
            'unsafe-path /etc/hostname',
        ];
        yield 'a path with an encoded line end' => [
            $edit('manifest-sha256.txt', static fn (string $t): string => $t.str_repeat('a', 64)."  data/a%0Ab\n"),
            'unsafe-path data/a%0Ab',
        ];
        yield 'a payload file outside data' => [
            $edit(
                'manifest-sha256.txt',
                static fn (string $t): string => $t.str_repeat('a', 64)."  inventory.jsonl\n",
            ),
            'bad-manifest inventory.jsonl',
            'inventory-differs inventory.jsonl',
        ];
        yield 'a file listed twice' => [
            $edit(
                'manifest-sha256.txt',
                static fn (string $t): string => $t.substr($t, 0, (int) strpos($t, "\n") + 1),
            ),
            'duplicate data/contacts/una.vcf',
        ];
        yield 'a line that is no digest' => [
            $edit('manifest-sha256.txt', static fn (string $t): string => $t."deadbeef  data/x\n"),
            'bad-manifest manifest-sha256.txt',
        ];
        yield 'a wrong sum of bytes' => [
            $edit(
                'bag-info.txt',
                static fn (string $t): string => (string) preg_replace('/Oxum: .*/', 'Oxum: 7.5', $t),
            ),
            'wrong-oxum bag-info.txt',
        ];
        yield 'no serial' => [
            $edit(
                'bag-info.txt',
                static fn (string $t): string => (string) preg_replace('/Device-Serial: .*\n/', '', $t),
            ),
            'undescribed bag-info.txt',
        ];
        yield 'an inventory cut short' => [
            $edit('inventory.jsonl', static fn (string $t): string => substr($t, 0, -140)),
            'inventory-differs inventory.jsonl',
        ];
        $manifest = static fn (string $bag, string $algorithm, string $change = ''): mixed => file_put_contents(
            "{$bag}/manifest-{$algorithm}.txt",
            $change.implode('', array_map(
                static fn (string $l): string => hash_file($algorithm, "{$bag}/".self::pathOf($l)).'  '.substr($l, 66),
                file("{$bag}/manifest-sha256.txt") ?: [],
            )),
        );
        $listed = static function (string $bag, string ...$more): void {
            $digests = [];
            foreach (['bag-info.txt', 'bagit.txt', 'inventory.jsonl', 'manifest-sha256.txt', ...$more] as $name) {
                $digests[$name] = (string) hash_file('sha256', "{$bag}/{$name}");
            }
            file_put_contents("{$bag}/tagmanifest-sha256.txt", Manifest::render($digests));
        };
        foreach (['sha512', 'sha1', 'md5'] as $algorithm) {
            yield "a good {$algorithm} manifest beside" => [
                static function (string $bag) use ($algorithm, $manifest, $listed): void {
                    $manifest($bag, $algorithm);
                    $listed($bag, "manifest-{$algorithm}.txt");
                },
            ];
            yield "a {$algorithm} manifest with a wrong digest" => [
                static function (string $bag) use ($algorithm, $manifest, $listed): void {
                    $manifest($bag, $algorithm);
                    $text = (string) file_get_contents("{$bag}/manifest-{$algorithm}.txt");
                    $text[0] = $text[0] === '0' ? '1' : '0';
                    file_put_contents("{$bag}/manifest-{$algorithm}.txt", $text);
                    $listed($bag, "manifest-{$algorithm}.txt");
                },
                'altered data/contacts/una.vcf',
            ];
            yield "a {$algorithm} manifest that leaves a file out" => [
                static function (string $bag) use ($algorithm, $manifest, $listed): void {
                    $manifest($bag, $algorithm);
                    $lines = file("{$bag}/manifest-{$algorithm}.txt") ?: [];
                    file_put_contents("{$bag}/manifest-{$algorithm}.txt", implode('', array_slice($lines, 1)));
                    $listed($bag, "manifest-{$algorithm}.txt");
                },
                'unlisted data/contacts/una.vcf',
            ];
            yield "a good {$algorithm} tag manifest" => [
                static fn (string $bag) => file_put_contents(
                    "{$bag}/tagmanifest-{$algorithm}.txt",
                    hash_file($algorithm, "{$bag}/manifest-sha256.txt")."  manifest-sha256.txt\n",
                ),
            ];
            yield "a {$algorithm} tag manifest with a wrong digest" => [
                static fn (string $bag) => file_put_contents(
                    "{$bag}/tagmanifest-{$algorithm}.txt",
                    hash($algorithm, 'x')."  manifest-sha256.txt\n",
                ),
                'altered manifest-sha256.txt',
            ];
            yield "a {$algorithm} tag manifest that leaves the payload manifest out" => [
                static fn (string $bag) => file_put_contents(
                    "{$bag}/tagmanifest-{$algorithm}.txt",
                    hash_file($algorithm, "{$bag}/bagit.txt")."  bagit.txt\n",
                ),
                'unlisted manifest-sha256.txt',
            ];
        }
        yield 'a manifest that lists a file that is not there' => [
            static function (string $bag) use ($manifest, $listed): void {
                $manifest($bag, 'md5', hash('md5', 'x')."  data/contacts/nobody.vcf\n");
                $listed($bag, 'manifest-md5.txt');
            },
            'missing data/contacts/nobody.vcf',
        ];
        yield 'a manifest of an algorithm that is not known' => [
            static function (string $bag) use ($listed): void {
                file_put_contents("{$bag}/manifest-blake2b.txt", 'whatever');
                $listed($bag, 'manifest-blake2b.txt');
            },
        ];
        yield 'a tag manifest that lists a tag manifest' => [
            static fn (string $bag) => file_put_contents(
                "{$bag}/tagmanifest-md5.txt",
                hash_file('md5', "{$bag}/manifest-sha256.txt")."  manifest-sha256.txt\n"
                    .hash_file('md5', "{$bag}/tagmanifest-sha256.txt")."  tagmanifest-sha256.txt\n",
            ),
            'bad-manifest tagmanifest-sha256.txt',
        ];
        yield 'a tag folder that is listed' => [
            static function (string $bag) use ($listed): void {
                mkdir("{$bag}/depot/deep", recursive: true);
                file_put_contents("{$bag}/depot/deep/note.txt", 'x');
                $listed($bag, 'depot/deep/note.txt');
            },
        ];
        yield 'a tag folder that is not' => [
            static function (string $bag): void {
                mkdir("{$bag}/depot/deep", recursive: true);
                file_put_contents("{$bag}/depot/deep/note.txt", 'x');
                symlink('/etc', "{$bag}/depot/etc");
            },
            'unlisted depot/deep/note.txt',
            'link depot/etc',
        ];
        yield 'an altered file in a tag folder' => [
            static function (string $bag) use ($listed): void {
                mkdir("{$bag}/depot");
                file_put_contents("{$bag}/depot/note.txt", 'x');
                $listed($bag, 'depot/note.txt');
                file_put_contents("{$bag}/depot/note.txt", 'y');
            },
            'altered depot/note.txt',
        ];
        yield 'a tag file that is called by a number' => [
            static function (string $bag) use ($listed): void {
                file_put_contents("{$bag}/123", 'x');
                $listed($bag, '123');
            },
        ];
        yield 'one of that name that is not listed' => [
            static fn (string $bag) => file_put_contents("{$bag}/123", 'x'),
            'unlisted 123',
        ];
        yield 'a link for the payload' => [
            static function (string $bag): void {
                rename("{$bag}/data", "{$bag}-data");
                symlink("{$bag}-data", "{$bag}/data");
            },
            'link data',
            'wrong-oxum bag-info.txt',
        ];
        yield 'a pipe in the payload' => [
            static fn (string $bag) => posix_mkfifo("{$bag}/data/pipe", 0o600),
            'unreadable data/pipe',
            'unlisted data/pipe',
            'wrong-oxum bag-info.txt',
        ];
        foreach (['Declared-Version: 8.7.0', 'payload-oxum: 20035.5', 'Label: again'] as $line) {
            yield "a label that stands twice: {$line}" => [
                $edit('bag-info.txt', static fn (string $t): string => "{$t}{$line}\n"),
                'duplicate bag-info.txt',
                ...str_starts_with($line, 'payload') ? ['wrong-oxum bag-info.txt'] : [],
            ];
        }
        yield 'a label of somebody else that stands twice' => [
            $edit('bag-info.txt', static fn (string $t): string => "{$t}Contact-Name: a\nContact-Name: b\n"),
        ];
        yield 'an inventory with another size' => [
            $edit('inventory.jsonl', static fn (string $t): string => str_replace('"bytes":4', '"bytes":5', $t)),
            'inventory-differs data/photos/album/100%.jpg',
        ];
        yield 'an inventory with another digest' => [
            $edit(
                'inventory.jsonl',
                static fn (string $t): string => str_replace(hash('sha256', 'foam'), str_repeat('0', 64), $t),
            ),
            'inventory-differs data/photos/album/100%.jpg',
        ];
    }

    private static function pathOf(string $line): string
    {
        return str_replace('%25', '%', trim(substr($line, 66)));
    }

    public function test_what_is_not_checked_is_named(): void
    {
        Sample::bag("{$this->folder}/b-17");
        file_put_contents("{$this->folder}/b-17/tagmanifest-blake2b.txt", 'whatever');
        $report = BagVerifier::verify("{$this->folder}/b-17");

        self::assertSame([['tagmanifest-blake2b.txt'], []], [$report->unchecked, $report->faults]);
    }

    /**
     * A bag from anywhere is judged by RFC 8493 alone: any of its algorithms will do, and a tag manifest may be left
     * out. The first is laid out as the small bag that the standard prints (from memory); its digests are computed.
     *
     * @param  array<string, string>  $files
     * @param  list<string>  $faults
     */
    #[DataProvider('foreign')]
    public function test_a_bag_from_anywhere_is_judged_by_the_standard(array $files, array $faults): void
    {
        foreach ($files as $name => $text) {
            @mkdir(dirname("{$this->folder}/b/{$name}"), recursive: true);
            file_put_contents("{$this->folder}/b/{$name}", $text);
        }

        self::assertSame($faults, array_map(
            static fn (Fault $f): string => $f->code->value.' '.$f->path,
            BagVerifier::verify("{$this->folder}/b")->faults,
        ));
    }

    /** @return iterable<string, array{array<string, string>, list<string>}> */
    public static function foreign(): iterable
    {
        $declaration = ['bagit.txt' => "BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n"];
        $page = ['data/27613-h/images/q172.png' => 'a page', 'data/27613-h/images/q172.txt' => 'its words'];
        $manifest = static fn (string $algorithm): string => hash($algorithm, 'a page')
            ." data/27613-h/images/q172.png\n".hash($algorithm, 'its words')." data/27613-h/images/q172.txt\n";
        yield 'as printed' => [
            $declaration + $page + ['manifest-md5.txt' => $manifest('md5'), 'bag-info.txt' => "Contact-Name: J\n"],
            [],
        ];
        yield 'in capital digits' => [
            $declaration + $page + ['manifest-sha512.txt' => (string) preg_replace_callback(
                '/^[0-9a-f]+/m',
                static fn (array $m): string => strtoupper($m[0]),
                $manifest('sha512'),
            )],
            [],
        ];
        yield 'two manifests' => [
            $declaration + $page + ['manifest-md5.txt' => $manifest('md5'), 'manifest-sha1.txt' => $manifest('sha1')],
            [],
        ];
        yield 'an altered file' => [
            $declaration + ['data/27613-h/images/q172.png' => 'b page'] + $page
                + ['manifest-sha1.txt' => $manifest('sha1')],
            ['altered data/27613-h/images/q172.png'],
        ];
        yield 'no manifest' => [$declaration + ['data/a' => 'a'], ['missing manifest-sha256.txt', 'unlisted data/a']];
        yield 'only a manifest that nothing here knows' => [
            $declaration + ['data/a' => 'a', 'manifest-blake2b.txt' => 'x'],
            ['bad-manifest manifest-blake2b.txt', 'unlisted data/a'],
        ];
        yield 'what was left to be fetched is there' => [
            $declaration + $page + [
                'manifest-md5.txt' => $manifest('md5'),
                'fetch.txt' => "https://elsewhere.example/q 6 data/27613-h/images/q172.png\n",
            ],
            [],
        ];
        yield 'a list of what to fetch that cannot be read' => [
            $declaration + $page + ['manifest-md5.txt' => $manifest('md5'), 'fetch.txt' => "here\n"],
            ['bad-manifest fetch.txt'],
        ];
    }

    public function test_a_folder_without_a_payload_is_no_bag(): void
    {
        file_put_contents(
            "{$this->folder}/bagit.txt",
            "BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n",
        );
        $this->expectException(NotABag::class);
        $this->expectExceptionMessage('it has no data/');

        BagVerifier::verify($this->folder);
    }

    public function test_a_folder_without_a_declaration_is_no_bag(): void
    {
        $this->expectException(NotABag::class);
        $this->expectExceptionMessage('it has no bagit.txt');

        BagVerifier::verify($this->folder);
    }

    public function test_a_seal_takes_the_right_to_write_from_all_of_it(): void
    {
        Sample::bag("{$this->folder}/b-17");
        self::assertFalse(Seal::isClosed("{$this->folder}/b-17"));

        Seal::close("{$this->folder}/b-17");

        self::assertTrue(Seal::isClosed("{$this->folder}/b-17"));
        self::assertSame(0o555, fileperms("{$this->folder}/b-17/data/photos") & 0o777);
        self::assertTrue(BagVerifier::verify("{$this->folder}/b-17")->isSound());
        self::assertFalse(Seal::isClosed("{$this->folder}/nowhere"));
    }
}
