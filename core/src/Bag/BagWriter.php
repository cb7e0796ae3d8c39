<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\UnsafePath;
use JadeStep\Core\Bag\Exception\WriteFailed;
use JadeStep\Core\Bag\Internal\ItemRecord;
use JadeStep\Core\Bag\Internal\Listing;
use JadeStep\Core\Bag\Internal\Manifest;
use JadeStep\Core\Bag\Internal\RunningDigest;
use JadeStep\Core\Bag\Internal\Source;
use JadeStep\Core\Bag\Internal\StoredNames;
use JadeStep\Core\Bag\Internal\TagFiles;
use JadeStep\Core\Bag\Internal\Tree;
use JadeStep\Core\Bag\Internal\WorkFolder;

/**
 * Writes a plain bag item by item.
 *
 * The work happens in a folder of its own beside the place where the bag will stand: `bag/` and a log of the
 * items that are whole. Killed at any point, it goes on where it was; the bag appears under its name only by the
 * last rename, so that no half bag looks whole.
 */
final class BagWriter implements Writer
{
    private readonly string $work;

    private readonly StoredNames $names;

    private int $ownBytes = 0;

    /** @var resource|null of the items that are whole; open from the first one on */
    private $log = null;

    /** @param  array<string, Item>  $written by key */
    private function __construct(
        private readonly WorkFolder $folder,
        private readonly string $target,
        private array $written,
    ) {
        $this->work = $folder->path;
        $this->names = new StoredNames;
        array_map($this->names->keep(...), array_values($written));
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

    /** Whether this very item is here already. */
    public function has(Item $item): bool
    {
        return ($this->written[$item->key()] ?? null)?->sha256 === $item->sha256;
    }

    /**
     * The file gets one more name, which is this bag's own; its bytes, its time and its rights are those of both. The
     * names beside the bag are two, since what is written into `item.part` must never be another bag's.
     */
    public function share(Item $listed, EarlierBag $earlier): bool
    {
        $file = $earlier->fileOf($listed);
        $part = "{$this->work}/shared.part";
        if ($file === null || ! @link($file, $part) && ! (@unlink($part) && @link($file, $part))) {
            return false; // the name may be left from before: a rename to the very same file leaves both
        }
        $this->place($part, $listed, $listed->bytes, $listed->sha256);

        return true;
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
        $known = $this->written[$listed->key()] ?? null;
        $stored = $known === null ? $this->names->for($listed->kind, $listed->path) : $known->file;
        $file = "{$this->work}/bag/data/".PayloadPath::parse($stored ?? $listed->key());
        Tree::makeFolder(dirname($file));
        Tree::rename($part, $file);
        $isAsListed = [$listed->bytes, $listed->sha256, $listed->file] === [$bytes, $digest, $stored];
        $item = $isAsListed // one value for both, since there may be very many
            ? $listed
            : new Item($listed->kind, $listed->path, $bytes, $digest, $listed->modifiedAt, $stored);
        $this->written[$item->key()] = $item;
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

    /** Leaves out what the device no longer lists. */
    public function dropAllBut(Inventory $listing): void
    {
        $listed = [];
        foreach ($listing->items as $item) {
            $listed[$item->key()] = true;
        }
        $this->written = array_intersect_key($this->written, $listed);
    }

    /**
     * Writes the tag files and puts the bag in its place.
     *
     * @param  array<string, int|null>  $storeSchemas  by kind code; every kind of the bag is named, in its order
     */
    public function finish(BagDescription $description, array $storeSchemas): Inventory
    {
        $inventory = $this->inventory($storeSchemas);
        $this->dropStrays($inventory);
        $manifest = [];
        foreach ($inventory->items as $item) {
            $manifest['data/'.$item->stored()] = $item->sha256;
        }
        TagFiles::write("{$this->work}/bag", [
            TagFiles::INFO => $description->render($inventory->bytes().'.'.count($inventory->items)),
            TagFiles::MANIFEST => Manifest::render($manifest),
            TagFiles::INVENTORY => implode(
                '',
                array_map(static fn (string $l): string => $l."\n", iterator_to_array($inventory->lines(), false)),
            ),
        ]);
        Tree::rename("{$this->work}/bag", $this->target);
        $this->folder->remove();

        return $inventory;
    }

    /** @param  array<string, int|null>  $storeSchemas */
    private function inventory(array $storeSchemas): Inventory
    {
        $items = $this->written;
        ksort($items, SORT_STRING);
        $counts = array_count_values(array_map(static fn (Item $i): string => $i->kind, $items));
        $kinds = [];
        foreach ($storeSchemas as $kind => $schema) {
            $kinds[] = new KindHeader($kind, $counts[$kind] ?? 0, $schema);
        }

        return Inventory::of(
            $kinds,
            array_values(array_filter($items, static fn (Item $i): bool => array_key_exists($i->kind, $storeSchemas))),
        );
    }

    /** How many bytes of the payload no other bag has: what the bag adds on the disk. Known when it is finished. */
    public function ownBytes(): int
    {
        return $this->ownBytes;
    }

    /** A kill between a file's rename and its log line leaves a file that no manifest would list. */
    private function dropStrays(Inventory $inventory): void
    {
        $this->ownBytes = 0;
        $wanted = [];
        foreach ($inventory->items as $item) {
            $wanted[$item->stored()] = true;
        }
        foreach (Tree::files("{$this->work}/bag/data") as $path => $info) {
            if (! isset($wanted[$path])) {
                unlink($info->getPathname());
            } else {
                $stat = @lstat($info->getPathname());
                $this->ownBytes += $stat !== false && $stat['nlink'] === 1 ? $stat['size'] : 0;
            }
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
     *
     * @return array<string, Item>
     */
    private static function wholeItems(string $work): array
    {
        $items = [];
        foreach (Listing::lines("{$work}/items.log") as $line) {
            $item = ItemRecord::read($line);
            if ($item !== null && @filesize("{$work}/bag/data/{$item->stored()}") === $item->bytes) {
                $items[$item->key()] = $item;
            }
        }

        return $items;
    }
}
