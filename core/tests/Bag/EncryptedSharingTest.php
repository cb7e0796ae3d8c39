<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\BagDescription;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\EarlierBag;
use JadeStep\Core\Bag\EncryptedBagWriter;
use JadeStep\Core\Bag\EncryptedContent;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Items;
use JadeStep\Core\Bag\KindHeader;
use JadeStep\Core\Bag\OpenPgp;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use PHPUnit\Framework\TestCase;

/** Encrypted bags of one device and one passphrase, of which a later one has the segments that did not change much. */
final class EncryptedSharingTest extends TestCase
{
    use TemporaryFolder;

    private const PASSPHRASE = 'harbour light at low tide';

    private const SEGMENT_BYTES = 30_000;

    public function test_what_changed_comes_in_a_segment_of_its_own_and_the_others_stay(): void
    {
        $this->bag('first', self::first() + ['e.md' => str_repeat('e', 3_000)]);
        $now = ['b.md' => 'painted anew', 'f.md' => 'a new one'] + self::first(); // and e.md is gone
        ksort($now);
        $shared = $this->bag('second', $now, 'first', $own);

        self::assertSame(['a.md', 'c.md', 'd.md'], $shared);
        self::assertSame(
            ['notes-0001', 'notes-0002', 'notes-0003'],
            array_map(static fn (string $f): string => basename($f, '.tar.gpg'), $this->segments('second')),
        );
        foreach (['notes-0001', 'notes-0002'] as $segment) {
            self::assertSame(
                fileinode("{$this->folder}/first/data/{$segment}.tar.gpg"),
                fileinode("{$this->folder}/second/data/{$segment}.tar.gpg"),
            );
        }
        self::assertSame($now, $this->contents('second'));
        self::assertSame(self::first(), array_diff_key($this->contents('first'), ['e.md' => true]));
        self::assertSame([], $this->content('second')->prove());
        self::assertSame([], BagVerifier::verify("{$this->folder}/second")->faults);
        $new = (int) filesize("{$this->folder}/second/data/notes-0003.tar.gpg")
            + (int) filesize("{$this->folder}/second/data/inventory.jsonl.gpg");
        self::assertSame($new, $own);
    }

    public function test_each_opens_when_the_other_is_gone_and_a_third_shares_with_the_second(): void
    {
        $this->bag('first', self::first());
        $this->bag('second', ['b.md' => 'painted anew'] + self::first(), 'first');
        exec("rm -rf {$this->folder}/first");
        self::assertSame([], $this->content('second')->prove());

        $shared = $this->bag('third', ['b.md' => 'painted anew', 'd.md' => 'oakum'] + self::first(), 'second');
        self::assertSame(['a.md', 'c.md'], array_values(array_diff($shared, ['b.md'])));
        self::assertSame('oakum', $this->contents('third')['d.md'] ?? null);
        self::assertSame([], $this->content('third')->prove());
    }

    public function test_a_segment_of_which_little_is_left_is_written_anew(): void
    {
        $large = ['a.md' => str_repeat('a', 9_000), 'b.md' => str_repeat('b', 40_000)];
        $this->bag('first', $large, null, $own, 8, 100_000);
        $shared = $this->bag('second', ['a.md' => $large['a.md'], 'b.md' => 'short'], 'first', $own, 8, 100_000);

        self::assertSame([], $shared);
        self::assertSame('short', $this->contents('second')['b.md'] ?? null);
    }

    public function test_a_segment_has_at_most_as_many_names_as_it_may_have(): void
    {
        $this->bag('first', self::first());
        $this->bag('second', self::first(), 'first', $own, 2);
        self::assertSame([], $this->bag('third', self::first(), 'second', $own, 2));
        self::assertSame([], $this->content('third')->prove());
    }

    public function test_what_another_passphrase_closed_is_not_shared(): void
    {
        $this->bag('first', self::first());

        self::assertNull(EarlierBag::opened("{$this->folder}/first", self::pgp('another light at high tide'), 8));
    }

    public function test_a_kill_while_it_shares_costs_neither_bag_anything(): void
    {
        $this->bag('first', self::first());
        $now = ['b.md' => 'painted anew', 'e.md' => 'a new one'] + self::first();
        $listing = self::listing($now);
        $writer = $this->writer('second');
        $earlier = EarlierBag::opened("{$this->folder}/first", self::pgp(), 8);
        self::assertNotNull($earlier);
        $writer->share($earlier, $listing, static fn () => null);
        $writer->takeWhole(self::item('b.md', $now['b.md']), $now['b.md']);
        $writer->pause(); // what was taken is in a whole segment; a kill is the same without it
        unset($writer);

        $again = $this->writer('second');
        $again->share($earlier, $listing, static fn () => null);
        self::assertSame(['e.md'], array_column([...$again->lacks($listing)], 'path'));
        $again->takeWhole(self::item('e.md', $now['e.md']), $now['e.md']);
        $this->finish($again, 'second');

        $contents = $this->contents('second');
        ksort($now);
        self::assertSame($now, $contents);
        self::assertSame([], $this->content('second')->prove());
        self::assertSame([], BagVerifier::verify("{$this->folder}/first")->faults);
    }

    public function test_without_the_earlier_bag_at_hand_a_shared_segment_is_fetched_after_all(): void
    {
        $this->bag('first', self::first());
        $listing = self::listing(self::first());
        $earlier = EarlierBag::opened("{$this->folder}/first", self::pgp(), 8);
        self::assertNotNull($earlier);
        $writer = $this->writer('second');
        $writer->share($earlier, $listing, static fn () => null);
        $writer->abandon();
        unset($writer);

        $again = $this->writer('second');
        self::assertSame(array_keys(self::first()), array_column([...$again->lacks($listing)], 'path'));
        foreach (self::first() as $path => $text) {
            $again->takeWhole(self::item($path, $text), $text);
        }
        $this->finish($again, 'second');
        self::assertSame(self::first(), $this->contents('second'));
        self::assertSame([], $this->content('second')->prove());
        self::assertSame([], $this->content('first')->prove());
    }

    public function test_a_flipped_bit_of_a_shared_segment_is_found_in_each(): void
    {
        $this->bag('first', self::first());
        $this->bag('second', self::first(), 'first');
        $file = "{$this->folder}/second/data/notes-0001.tar.gpg";
        $bytes = (string) file_get_contents($file);
        $bytes[intdiv(strlen($bytes), 2)] = chr(ord($bytes[intdiv(strlen($bytes), 2)]) ^ 1);
        $stream = fopen($file, 'r+b');
        self::assertNotFalse($stream);
        fwrite($stream, $bytes);
        fclose($stream);

        foreach (['first', 'second'] as $bag) {
            self::assertSame(
                'data/notes-0001.tar.gpg',
                BagVerifier::verify("{$this->folder}/{$bag}")->faults[0]->path,
            );
        }
    }

    /** What is more than fits in memory goes to a file, in which no name of an owner's item can be read. */
    public function test_no_name_stands_in_the_file_that_holds_what_does_not_fit_in_memory(): void
    {
        $items = new Items;
        $many = 90_000;
        for ($i = 0; $i < $many; $i++) {
            $items->add(self::item("secret-harbour-{$i}.md", "{$i}"));
        }
        self::assertCount($many, $items);
        $found = 0;
        foreach (glob('/proc/self/fd/*') ?: [] as $fd) {
            $file = (string) @readlink($fd);
            if (str_ends_with($file, ' (deleted)') && str_contains($file, 'etilqs')) {
                $text = (string) shell_exec('cat /proc/'.getmypid().'/fd/'.basename($fd)); // it has no name any more
                $found = max($found, strlen($text));
                self::assertStringNotContainsString('secret-harbour', $text);
                self::assertStringNotContainsString(hash('sha256', '4711'), $text);
                self::assertStringNotContainsString((string) hex2bin(hash('sha256', '4711')), $text);
            }
        }
        self::assertGreaterThan(1_000_000, $found, 'There is such a file.');
        self::assertSame('secret-harbour-4711.md', $items->find('notes/secret-harbour-4711.md')?->path);
    }

    /**
     * @param  array<string, string>  $notes  text by path
     * @param  int|null  $own  the bytes that are the bag's own
     *
     * @param-out int $own
     *
     * @return list<string> the paths of what was shared
     */
    private function bag(
        string $id,
        array $notes,
        ?string $earlier = null,
        ?int &$own = null,
        int $atMost = 8,
        int $segment = self::SEGMENT_BYTES,
    ): array {
        $writer = $this->writer($id, $segment);
        $listing = self::listing($notes);
        $shared = [];
        if ($earlier !== null) {
            $before = EarlierBag::opened("{$this->folder}/{$earlier}", self::pgp(), $atMost);
            self::assertNotNull($before);
            $writer->share($before, $listing, static function (Item $item) use (&$shared): void {
                $shared[] = $item->path;
            });
        }
        foreach ($writer->lacks($listing) as $item) {
            $writer->takeWhole($item, $notes[$item->path]);
        }
        $this->finish($writer, $id);
        $own = $writer->ownBytes();

        return $shared;
    }

    /** @return array<string, string> three notes that fill a segment, and one in the next */
    private static function first(): array
    {
        $text = static fn (string $letter): string => str_repeat($letter, 9_000);

        return ['a.md' => $text('a'), 'b.md' => $text('b'), 'c.md' => $text('c'), 'd.md' => $text('d')];
    }

    private function writer(string $id, int $segment = self::SEGMENT_BYTES): EncryptedBagWriter
    {
        return EncryptedBagWriter::open("{$this->folder}/{$id}", self::pgp(), $segment);
    }

    private function finish(EncryptedBagWriter $writer, string $id): void
    {
        $writer->finish(
            new BagDescription(
                $id,
                'SKL-0042',
                'FN7-2',
                'tarn',
                Version::parse('9.3.0'),
                Version::parse('9.3.0'),
                Rfc3339::parse(Sample::NOW),
                Encryption::OpenPgp,
                'A backup',
            ),
            ['notes' => 3],
        );
    }

    private function content(string $id): EncryptedContent
    {
        return new EncryptedContent("{$this->folder}/{$id}", self::pgp());
    }

    /** @return array<string, string> text by path */
    private function contents(string $id): array
    {
        $found = [];
        $this->content($id)->each(static function (Item $item, callable $read) use (&$found): void {
            self::assertArrayNotHasKey($item->path, $found);
            $found[$item->path] = '';
            while (($piece = $read(7)) !== '') {
                $found[$item->path] .= $piece;
            }
        });
        ksort($found);

        return $found;
    }

    /** @return list<string> */
    private function segments(string $id): array
    {
        $files = glob("{$this->folder}/{$id}/data/*.tar.gpg");

        return $files === false ? [] : $files;
    }

    private static function pgp(string $passphrase = self::PASSPHRASE): OpenPgp
    {
        return new OpenPgp(sys_get_temp_dir().'/jade-step-test-gnupg-'.posix_geteuid(), Passphrase::parse($passphrase));
    }

    /** @param  array<string, string>  $notes  text by path */
    private static function listing(array $notes): Inventory
    {
        return Inventory::of(
            [new KindHeader('notes', count($notes), 3)],
            array_map(self::item(...), array_keys($notes), $notes),
        );
    }

    private static function item(string $path, string $text): Item
    {
        return new Item('notes', $path, strlen($text), hash('sha256', $text), Rfc3339::parse(Sample::NOW));
    }
}
