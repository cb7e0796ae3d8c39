<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\BagWriter;
use JadeStep\Core\Bag\EarlierBag;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\KindHeader;
use JadeStep\Core\Bag\ReadFiles;
use JadeStep\Core\Bag\Seal;
use JadeStep\Core\Bag\Space;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\TestCase;

/** A bag that has files with an earlier one is whole by itself, and neither costs the other anything. */
final class SharingTest extends TestCase
{
    use TemporaryFolder;

    private const FIRST = ['a.md' => 'rope', 'b.md' => 'paint', 'c.md' => 'tar and oakum'];

    public function test_only_what_changed_is_its_own_and_moved_items_are_known_by_their_bytes(): void
    {
        $this->bag('first', self::FIRST);
        $shared = $this->bag('second', ['a.md' => 'rope', 'new/place.md' => 'paint', 'c.md' => 'pitch'], 'first', $own);

        self::assertSame(['a.md', 'new/place.md'], $shared);
        self::assertSame(strlen('pitch'), $own);
        self::assertSame([], BagVerifier::verify("{$this->folder}/second")->faults);
        self::assertSame([], BagVerifier::verify("{$this->folder}/first")->faults);
        self::assertSame(
            ['2026-11-20T09:00:00Z'],
            array_unique(array_map(
                static fn (Item $i): string => Rfc3339::format($i->modifiedAt),
                iterator_to_array(BagReader::open("{$this->folder}/second")->inventory()->items),
            )),
            'Its inventory tells the times that the device tells.',
        );
    }

    public function test_each_is_whole_when_the_other_is_gone_and_when_it_is_sealed(): void
    {
        $this->bag('first', self::FIRST);
        Seal::close("{$this->folder}/first");
        $this->bag('second', ['a.md' => 'rope', 'd.md' => 'new'], 'first');
        Seal::close("{$this->folder}/second");

        self::assertSame(strlen('paint') + strlen('tar and oakum'), Space::onlyIn("{$this->folder}/first"));
        exec("chmod u+w {$this->folder}/first {$this->folder}/first/data {$this->folder}/first/data/notes");
        exec("rm -rf {$this->folder}/first");

        self::assertSame([], BagVerifier::verify("{$this->folder}/second")->faults);
        self::assertTrue(Seal::isClosed("{$this->folder}/second"));
    }

    public function test_folders_and_times_are_its_own_where_it_shares_with_a_sealed_bag(): void
    {
        $this->bag('first', ['pier/a.md' => 'rope', 'pier/b.md' => 'paint']);
        Seal::close("{$this->folder}/first");
        $later = Rfc3339::parse('2026-11-21T07:00:00Z');
        $moved = static fn (Item $i): Item => new Item($i->kind, $i->path, $i->bytes, $i->sha256, $later);
        $listing = Inventory::of(
            [new KindHeader('notes', 2, null)],
            [$moved(self::item('pier/a.md', 'rope')), $moved(self::item('pier/b.md', 'paint'))],
        );
        $writer = BagWriter::open("{$this->folder}/second");
        $earlier = EarlierBag::open("{$this->folder}/first", 8);
        self::assertNotNull($earlier);
        $writer->share($earlier, $listing, static fn () => null);
        $writer->finish(Sample::description('second'), ['notes' => null]);

        $rights = (int) fileperms("{$this->folder}/second/data/notes/pier");
        self::assertSame(0o200, $rights & 0o200, 'What is sealed in one bag is written to in the other.');
        $items = BagReader::open("{$this->folder}/second")->inventory()->items->first(9);
        self::assertEquals([$later, $later], array_column($items, 'modifiedAt'));
        self::assertSame([], BagVerifier::verify("{$this->folder}/second")->faults);
    }

    public function test_what_an_earlier_run_has_stored_is_not_written_over_by_what_is_shared(): void
    {
        $this->bag('first', ['Boat.md' => 'rope', 'boat.md' => 'paint']); // the second is stored under a safe name
        $notes = ['boat.md' => 'paint', 'Boat.md' => 'rope'];
        $writer = BagWriter::open("{$this->folder}/second");
        $writer->takeWhole(self::item('boat.md', 'paint'), 'paint');
        $writer->pause();
        unset($writer);

        $again = BagWriter::open("{$this->folder}/second");
        $earlier = EarlierBag::open("{$this->folder}/first", 8);
        self::assertNotNull($earlier);
        self::shared($again, $earlier, $notes);
        foreach ($again->lacks(self::listing($notes)) as $item) {
            $again->takeWhole($item, $notes[$item->path]);
        }
        $again->finish(Sample::description('second'), ['notes' => null]);

        self::assertSame([], BagVerifier::verify("{$this->folder}/second")->faults);
        self::assertSame(['notes' => 2], BagVerifier::verify("{$this->folder}/second")->counts);
        $files = array_map(basename(...), glob("{$this->folder}/second/data/notes/*") ?: []);
        $alike = array_unique(array_map(strtolower(...), $files));
        self::assertCount(2, $alike, 'No name differs from another by case alone.');
    }

    public function test_what_two_bags_share_is_read_once_when_both_are_gone_through(): void
    {
        $this->bag('first', self::FIRST);
        $this->bag('second', ['a.md' => 'rope', 'b.md' => 'paint', 'd.md' => 'a new one'], 'first');
        $read = 0;
        $count = static function (int $bytes) use (&$read): void {
            $read += $bytes;
        };
        $files = new ReadFiles;

        self::assertSame([], BagVerifier::verify("{$this->folder}/first", $count, $files)->faults);
        self::assertSame(strlen('ropepainttar and oakum'), $read);
        self::assertSame([], BagVerifier::verify("{$this->folder}/second", $count, $files)->faults);
        self::assertSame(strlen('ropepainttar and oakum'.'a new one'), $read);

        file_put_contents("{$this->folder}/second/data/notes/a.md", 'rock');
        touch("{$this->folder}/second/data/notes/a.md", 1_700_000_000);
        foreach (['first', 'second', 'first'] as $bag) {
            $faults = BagVerifier::verify("{$this->folder}/{$bag}", $count, $files)->faults;
            self::assertSame(['data/notes/a.md'], array_column($faults, 'path'), 'What changed is read again.');
        }
    }

    public function test_a_file_has_at_most_as_many_names_as_it_may_have(): void
    {
        $this->bag('b1', self::FIRST);
        $this->bag('b2', self::FIRST, 'b1', $own, 3);
        self::assertSame(0, $own);
        self::assertSame(['a.md', 'b.md', 'c.md'], $this->bag('b3', self::FIRST, 'b2', $own, 3));
        self::assertSame([], $this->bag('b4', self::FIRST, 'b3', $own, 3), 'Three bags rest on one copy.');
        self::assertSame(array_sum(array_map(strlen(...), self::FIRST)), $own);
        self::assertSame(['a.md', 'b.md', 'c.md'], $this->bag('b5', self::FIRST, 'b4', $own, 3), 'On the new one.');
    }

    public function test_a_flipped_bit_is_found_in_each_that_has_the_file(): void
    {
        $this->bag('first', self::FIRST);
        $this->bag('second', self::FIRST, 'first');
        file_put_contents("{$this->folder}/first/data/notes/a.md", 'ropf');

        foreach (['first', 'second'] as $bag) {
            self::assertSame(
                ['data/notes/a.md: its bytes are not those that were backed up'],
                array_map(
                    static fn (Fault $f): string => $f->message(),
                    BagVerifier::verify("{$this->folder}/{$bag}")->faults,
                ),
            );
        }
    }

    public function test_what_is_gone_cut_or_a_link_is_not_shared(): void
    {
        $this->bag('first', self::FIRST);
        unlink("{$this->folder}/first/data/notes/a.md");
        file_put_contents("{$this->folder}/first/data/notes/b.md", 'pai');
        rename("{$this->folder}/first/data/notes/c.md", "{$this->folder}/c.md");
        symlink("{$this->folder}/c.md", "{$this->folder}/first/data/notes/c.md");

        self::assertSame([], $this->bag('second', self::FIRST, 'first'));
        self::assertSame([], BagVerifier::verify("{$this->folder}/second")->faults);
        self::assertNull(EarlierBag::open("{$this->folder}/nowhere", 8));
    }

    /** A kill may come after the file has its new name beside the bag, or after it has it in the bag. */
    public function test_a_kill_while_sharing_costs_neither_bag_anything(): void
    {
        $this->bag('first', self::FIRST);
        $killed = BagWriter::open("{$this->folder}/second");
        $work = "{$this->folder}/second.writing";
        link("{$this->folder}/first/data/notes/a.md", "{$work}/shared.part");
        mkdir("{$work}/bag/data/notes");
        link("{$this->folder}/first/data/notes/b.md", "{$work}/bag/data/notes/b.md");
        $killed->pause();

        $shared = $this->bag('second', ['b.md' => 'paint', 'c.md' => 'pitch', 'a.md' => 'rope, new'], 'first', $own);

        self::assertSame(['b.md'], $shared);
        self::assertSame(strlen('pitch') + strlen('rope, new'), $own);
        self::assertSame([], BagVerifier::verify("{$this->folder}/first")->faults, 'Nothing came into its files.');
        self::assertSame([], BagVerifier::verify("{$this->folder}/second")->faults);
    }

    public function test_a_bag_is_sound_though_another_that_shares_with_it_is_deleted_while_it_is_read(): void
    {
        $this->bag('first', self::FIRST);
        $this->bag('second', self::FIRST, 'first');
        Seal::close("{$this->folder}/first");
        $deleted = false;
        $report = BagVerifier::verify("{$this->folder}/second", function () use (&$deleted): void {
            if (! $deleted) {
                $deleted = true;
                exec("find {$this->folder}/first -type d -exec chmod u+w {} +; rm -rf {$this->folder}/first");
            }
        });

        self::assertDirectoryDoesNotExist("{$this->folder}/first");
        self::assertSame([], $report->faults);
        self::assertSame([], BagVerifier::verify("{$this->folder}/second")->faults);
    }

    /** What changed on the device after it was shared takes the place of the name, and not of the bytes. */
    public function test_an_item_that_is_fetched_after_it_was_shared_leaves_the_earlier_bag_alone(): void
    {
        $this->bag('first', self::FIRST);
        $writer = BagWriter::open("{$this->folder}/second");
        $earlier = EarlierBag::open("{$this->folder}/first", 8);
        self::assertNotNull($earlier);
        self::assertSame(['a.md'], self::shared($writer, $earlier, ['a.md' => 'rope']));
        $writer->takeWhole(self::item('a.md', 'rope, sold'), 'rope, sold');
        $writer->take(self::item('b.md', 'x'), Sample::stream('x'));
        $writer->finish(Sample::description('second'), ['notes' => null]);

        self::assertSame('rope', file_get_contents("{$this->folder}/first/data/notes/a.md"));
        self::assertSame('rope, sold', file_get_contents("{$this->folder}/second/data/notes/a.md"));
    }

    /** @param  array<string, string>  $notes  text by path */
    private static function listing(array $notes): Inventory
    {
        return Inventory::of(
            [new KindHeader('notes', count($notes), null)],
            array_map(self::item(...), array_keys($notes), $notes),
        );
    }

    /**
     * @param  array<string, string>  $notes  text by path
     * @return list<string> the paths of what was shared
     */
    private static function shared(BagWriter $writer, EarlierBag $earlier, array $notes): array
    {
        $shared = [];
        $writer->share($earlier, self::listing($notes), static function (Item $item) use (&$shared): void {
            $shared[] = $item->path;
        });

        return $shared;
    }

    /**
     * @param  array<string, string>  $notes  text by path
     * @param  int|null  $own  the bytes that are the bag's own
     *
     * @param-out int $own
     *
     * @return list<string> the paths of what was shared
     */
    private function bag(string $id, array $notes, ?string $earlier = null, ?int &$own = null, int $atMost = 8): array
    {
        $writer = BagWriter::open("{$this->folder}/{$id}");
        $before = $earlier === null ? null : EarlierBag::open("{$this->folder}/{$earlier}", $atMost);
        $shared = $before === null ? [] : self::shared($writer, $before, $notes);
        foreach (array_diff_key($notes, array_flip($shared)) as $path => $text) {
            $writer->takeWhole(self::item($path, $text), $text);
        }
        $writer->finish(Sample::description($id), ['notes' => null]);
        $own = $writer->ownBytes();

        return $shared;
    }

    private static function item(string $path, string $text): Item
    {
        return new Item('notes', $path, strlen($text), hash('sha256', $text), Rfc3339::parse(Sample::NOW));
    }
}
