<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\UnsafePath;
use JadeStep\Core\Bag\Exception\WriteFailed;
use JadeStep\Core\Bag\Internal\ItemRecord;
use JadeStep\Core\Bag\Internal\Listing;
use JadeStep\Core\Bag\Internal\Manifest;
use JadeStep\Core\Bag\Internal\PathTable;
use JadeStep\Core\Bag\Internal\Program;
use JadeStep\Core\Bag\Internal\RunningDigest;
use JadeStep\Core\Bag\Internal\Source;
use JadeStep\Core\Bag\Internal\StoredNames;
use JadeStep\Core\Bag\Internal\TagFiles;
use JadeStep\Core\Bag\Internal\Tree;
use JadeStep\Core\Bag\Internal\WorkFolder;
use JadeStep\Core\Bag\Internal\WrittenItems;

/**
 * Writes a plain bag item by item.
 *
 * The work happens in a folder of its own beside the place where the bag will stand: `bag/` and a log of the
 * items that are whole. Killed at any point, it goes on where it was; the bag appears under its name only by the
 * last rename, so that no half bag looks whole.
 */
final class BagWriter implements Writer
{
    use WrittenItems;

    /** Hex digits of SHA-256. */
    private const DIGEST = 64;

    private readonly string $work;

    private readonly StoredNames $names;

    /** @var resource|null of the items that are whole; open from the first one on */
    private $log = null;

    private function __construct(
        private readonly WorkFolder $folder,
        private readonly string $target,
        Items $written,
    ) {
        $this->written = $written;
        $this->work = $folder->path;
        $this->names = new StoredNames;
        foreach ($written as $item) {
            $this->names->keep($item);
        }
    }

    /**
     * Begins, or goes on with what an earlier run left.
     *
     * @param  string  $target  the folder that the bag will have, which must not exist yet
     */
    public static function open(string $target): self
    {
        if (file_exists($target)) {
            throw WriteFailed::at(
                basename($target),
                'a bag of this name is there already, and nothing is ever overwritten',
            );
        }
        $folder = WorkFolder::hold($target);

        return new self($folder, $target, self::wholeItems($folder->path));
    }

    /**
     * A file gets one more name, which is this bag's own; its bytes, its time and its rights are those of both. What
     * was not moved keeps the name under which the earlier bag stores it. The names beside the bag are two, since what
     * is written into `item.part` must never be another bag's. What is shared is not noted: whoever goes on with the
     * bag shares it again.
     */
    public function share(EarlierBag $earlier, Inventory $listing, callable $had): void
    {
        if (! $this->mayLink($earlier, $listing)) {
            return;
        }
        $this->written->putFrom($this->linkUnchanged($earlier, $listing, $had));
        $this->shareMoved($earlier, $listing, $had);
    }

    /** Whether a file of the earlier bag can have another name here: not every file system has such files. */
    private function mayLink(EarlierBag $earlier, Inventory $listing): bool
    {
        $part = "{$this->work}/shared.part";
        foreach ($earlier->unchanged($listing) as $item) {
            $file = $earlier->fileAt($item->stored(), $item->bytes);
            if ($file !== null) {
                @unlink($part);

                return @link($file, $part);
            }
        }

        return true;
    }

    /**
     * One program links them all, in a fraction of the time of a call for each.
     *
     * @param  callable(Item): void  $had
     * @return Items what was not moved, and is linked
     */
    private function linkUnchanged(EarlierBag $earlier, Inventory $listing, callable $had): Items
    {
        $isNew = $this->written->isEmpty();
        $left = new KeySet;
        $data = "{$this->work}/bag/data";
        $paths = function () use ($earlier, $listing, $had, $isNew, $left, $data): \Generator {
            $folder = '';
            foreach ($earlier->unchanged($listing) as $item) {
                if (! $isNew && $this->isTaken($item) || $earlier->fileAt($item->stored(), $item->bytes) === null) {
                    $left->add($item->key());

                    continue;
                }
                $this->names->keep($item);
                $had($item);
                if (dirname($item->stored()) !== $folder) {
                    $folder = dirname($item->stored());
                    Tree::makeFolder("{$data}/{$folder}"); // else it gets the rights of the sealed one
                }
                yield "{$item->stored()}\0";
            }
        };
        $link = ['xargs', '-0', '-r', 'cp', '-l', '-f', '-P', '--parents', '-t', (string) realpath($data), '--'];

        Program::fed($link, $paths(), $earlier->payload()) || throw WriteFailed::at('data');

        return $earlier->unchangedBut($listing, $left);
    }

    /** Whether an earlier run has it already, or has stored another item by a name like its own. */
    private function isTaken(Item $item): bool
    {
        return $this->has($item) || ! $this->names->isFree($item->stored());
    }

    /** @param  callable(Item): void  $had */
    private function shareMoved(EarlierBag $earlier, Inventory $listing, callable $had): void
    {
        $part = "{$this->work}/shared.part";
        foreach ($this->lacks($listing) as $listed) {
            $file = $earlier->fileOf($listed);
            // the name may be left from before: a rename to the very same file leaves both
            if ($file !== null && (@link($file, $part) || @unlink($part) && @link($file, $part))) {
                $this->place($part, $listed, $listed->bytes, $listed->sha256);
                $had($listed);
            }
        }
    }

    /**
     * Writes one item from a stream, and takes its digest on the way.
     *
     * @param  resource  $content
     * @param  (callable(int): void)|null  $progress  told the bytes written since the last call
     *
     * @throws UnsafePath|WriteFailed
     */
    public function put(
        string $kind,
        string $path,
        \DateTimeImmutable $modifiedAt,
        $content,
        ?callable $progress = null,
    ): Item {
        return $this->take(new Item($kind, $path, 0, '', $modifiedAt), $content, $progress);
    }

    public function take(Item $listed, $content, ?callable $progress = null): Item
    {
        $part = "{$this->work}/item.part";
        [$bytes, $digest] = self::copy($content, $part, $progress);
        touch($part, $listed->modifiedAt->getTimestamp());

        return $this->place($part, $listed, $bytes, $digest);
    }

    public function takeWhole(Item $listed, string $bytes): Item
    {
        $part = "{$this->work}/item.part";
        if (@file_put_contents($part, $bytes) !== strlen($bytes)) {
            throw WriteFailed::at('item.part');
        }
        touch($part, $listed->modifiedAt->getTimestamp());

        return $this->place($part, $listed, strlen($bytes), Digest::ofText($bytes));
    }

    /** What was written beside it comes to its place whole, and is known from then on. */
    private function place(string $part, Item $listed, int $bytes, string $digest): Item
    {
        $known = $this->written->find($listed->key());
        $stored = $known === null ? $this->names->for($listed->kind, $listed->path) : $known->file;
        $file = "{$this->work}/bag/data/".PayloadPath::parse($stored ?? $listed->key());
        Tree::makeFolder(dirname($file));
        Tree::rename($part, $file);
        $isAsListed = [$listed->bytes, $listed->sha256, $listed->file] === [$bytes, $digest, $stored];
        $item = $isAsListed // one value for both, since there may be very many
            ? $listed
            : new Item($listed->kind, $listed->path, $bytes, $digest, $listed->modifiedAt, $stored);
        $this->written->put($item);
        $this->log($item);

        return $item;
    }

    /** Every item is whole in its place as soon as it is taken. */
    public function pause(): void
    {
        $this->folder->letGo();
    }

    public function abandon(): void
    {
        $this->folder->letGo();
    }

    /**
     * Writes the tag files and puts the bag in its place.
     *
     * @param  array<string, int|null>  $storeSchemas  by kind code; every kind of the bag is named, in its order
     */
    public function finish(BagDescription $description, array $storeSchemas): Inventory
    {
        $inventory = Inventory::ofKinds($storeSchemas, $this->written);
        $files = new PathTable; // digests, and lines of the inventory, which come in the order of the manifest
        foreach ($inventory->items as $item) {
            $files->put($item->stored(), $item->sha256.Inventory::line($item));
        }
        $this->dropStrays($files);
        TagFiles::write("{$this->work}/bag", [
            TagFiles::INFO => $description->render($inventory->bytes().'.'.count($inventory->items)),
            TagFiles::MANIFEST => (static function () use ($files): \Generator {
                foreach ($files->all() as $path => $line) {
                    yield Manifest::line("data/{$path}", substr((string) $line, 0, self::DIGEST));
                }
            })(),
            TagFiles::INVENTORY => (static function () use ($inventory, $files): \Generator {
                foreach ($inventory->kinds as $kind) {
                    yield Inventory::head($kind)."\n";
                    foreach ($kind->items === 0 ? [] : $files->below("{$kind->kind}/") as $line) {
                        yield substr((string) $line, self::DIGEST)."\n";
                    }
                }
            })(),
        ]);
        Tree::rename("{$this->work}/bag", $this->target);
        $this->folder->remove();

        return $inventory;
    }

    /** A kill between a file's rename and its log line leaves a file that no manifest would list. */
    private function dropStrays(PathTable $files): void
    {
        [$this->ownBytes, $many] = [0, 0];
        foreach (Tree::listing("{$this->work}/bag/data") as [$type, $bytes, $names]) {
            $this->ownBytes += $names === 1 ? $bytes : 0;
            $many++;
        }
        if ($many === $files->count()) {
            return;
        }
        $there = new PathTable;
        foreach (Tree::listing("{$this->work}/bag/data") as $path => [$type, $bytes, $names]) {
            $there->put($path, $names === 1 ? $bytes : 0);
        }
        foreach ($there->without($files) as $path => $bytes) {
            unlink("{$this->work}/bag/data/{$path}");
            $this->ownBytes -= (int) $bytes;
        }
    }

    /**
     * @param  resource  $content
     * @return array{int, string} bytes and SHA-256
     */
    private static function copy($content, string $file, ?callable $progress): array
    {
        $out = @fopen($file, 'wb');
        if ($out === false) {
            throw WriteFailed::at(basename($file));
        }
        $digest = RunningDigest::begin();
        $bytes = 0;
        $take = static function (string $text) use ($out, $file, $digest, &$bytes): void {
            if (@fwrite($out, $text) !== strlen($text)) {
                throw WriteFailed::at(basename($file));
            }
            $digest->add($text);
            $bytes += strlen($text);
        };
        Source::each($content, basename($file), $take, $progress);
        fclose($out);

        return [$bytes, $digest->end()];
    }

    private function log(Item $item): void
    {
        $this->log ??= self::opened("{$this->work}/items.log");
        $line = ItemRecord::line($item);
        if (@fwrite($this->log, $line) !== strlen($line)) {
            throw WriteFailed::at('items.log');
        }
    }

    /** @return resource */
    private static function opened(string $file)
    {
        $stream = @fopen($file, 'ab');

        return $stream === false ? throw WriteFailed::at(basename($file)) : $stream;
    }

    /**
     * The log's items whose file is there at its size. A torn last line, left by a kill, is passed over.
     */
    private static function wholeItems(string $work): Items
    {
        $items = new Items;
        $log = @fopen("{$work}/items.log", 'rb');
        foreach ($log === false ? [] : Listing::linesOf($log) as $line) {
            $item = ItemRecord::read($line);
            if ($item !== null && @filesize("{$work}/bag/data/{$item->stored()}") === $item->bytes) {
                $items->put($item);
            }
        }

        return $items;
    }
}
