<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Exception\WriteFailed;
use JadeStep\Core\Bag\Internal\ItemRecord;
use JadeStep\Core\Bag\Internal\Listing;
use JadeStep\Core\Bag\Internal\Manifest;
use JadeStep\Core\Bag\Internal\PgpMessage;
use JadeStep\Core\Bag\Internal\RunningDigest;
use JadeStep\Core\Bag\Internal\StoredNames;
use JadeStep\Core\Bag\Internal\TagFiles;
use JadeStep\Core\Bag\Internal\Tree;
use JadeStep\Core\Bag\Internal\WorkFolder;

/**
 * Writes an encrypted bag: per kind segments that are POSIX tars in OpenPGP messages, and the inventory as another.
 *
 * A segment that is whole has a record beside it, encrypted like itself, which names its items: killed at any point,
 * the writer goes on after the last whole segment. An item that is larger than a segment has one of its own. Where an
 * item was fetched twice, since it changed meanwhile, the last entry of its path counts.
 */
final class EncryptedBagWriter implements Writer
{
    public const SEGMENT_BYTES = 268_435_456;

    private ?PgpMessage $message = null;

    private ?TarWriter $tar = null;

    private string $segment = '';

    private int $segmentSize = 0;

    /** @var list<Item> */
    private array $inSegment = [];

    /** @var array<string, Item> by key, in whole segments or in the one that is open */
    private array $written = [];

    /** @var array<string, string> by key, the segment that holds the entry that counts */
    private array $places = [];

    /** @var list<array{segment: string, path: string}> entries that do not count, since the item was fetched again */
    private array $superseded = [];

    private readonly StoredNames $names;

    private function __construct(
        private readonly WorkFolder $folder,
        private readonly string $work,
        private readonly string $target,
        private readonly OpenPgp $pgp,
        private readonly int $segmentBytes,
    ) {
        $this->names = new StoredNames;
    }

    /**
     * Begins, or goes on with what an earlier run left.
     *
     * @param  string  $target  the folder that the bag will have, which must not exist yet
     *
     * @throws Unopened where an earlier run had another passphrase
     */
    public static function open(string $target, OpenPgp $pgp, int $segmentBytes = self::SEGMENT_BYTES): self
    {
        if (file_exists($target)) {
            throw WriteFailed::at(
                basename($target),
                'a bag of this name is there already, and nothing is ever overwritten',
            );
        }
        $folder = WorkFolder::hold($target);
        try {
            Tree::makeFolder("{$folder->path}/records");
            $writer = new self($folder, $folder->path, $target, $pgp, $segmentBytes);
            $writer->recall();
        } catch (\Throwable $e) {
            $folder->letGo();
            throw $e;
        }

        return $writer;
    }

    /** Whether this very item is here already. */
    public function has(Item $item): bool
    {
        return ($this->written[$item->key()] ?? null)?->sha256 === $item->sha256;
    }

    /** What is encrypted together is not told apart by its bytes. */
    public function share(Item $listed, EarlierBag $earlier): bool
    {
        return false;
    }

    /**
     * Writes one item from a stream. Where the device's listing is not what comes, the item has another digest or size.
     *
     * @param  Item  $listed  as the device listed it
     * @param  resource  $content
     * @param  (callable(int): void)|null  $progress  told the bytes written since the last call
     */
    public function put(Item $listed, $content, ?callable $progress = null): Item
    {
        $known = $this->written[$listed->key()] ?? null;
        $stored = $known === null ? $this->names->for($listed->kind, $listed->path) : $known->file;
        $this->segmentFor($listed);
        $hash = RunningDigest::begin();
        $bytes = $this->tar()->add(
            $stored ?? $listed->key(),
            $listed->bytes,
            $listed->modifiedAt->getTimestamp(),
            $content,
            static function (string $text) use ($hash, $progress): void {
                $hash->add($text);
                if ($progress !== null) {
                    $progress(strlen($text));
                }
            },
        );
        $this->segmentSize += $listed->bytes;
        $digest = $hash->end();
        $item = new Item(
            $listed->kind,
            $listed->path,
            $bytes,
            $bytes === $listed->bytes ? $digest : hash('sha256', "changed {$digest} {$bytes}"),
            $listed->modifiedAt,
            $stored,
        );
        $this->keep($item, $this->segment);
        $this->inSegment[] = $item;

        return $item;
    }

    public function take(Item $listed, $content, ?callable $progress = null): Item
    {
        return $this->put($listed, $content, $progress);
    }

    public function takeWhole(Item $listed, string $bytes): Item
    {
        $content = fopen('php://memory', 'w+b');
        if ($content === false) {
            throw WriteFailed::at($listed->key());
        }
        fwrite($content, $bytes);
        rewind($content);
        try {
            return $this->put($listed, $content);
        } finally {
            fclose($content);
        }
    }

    /** Leaves out what the device no longer lists. */
    public function dropAllBut(Inventory $listing): void
    {
        $listed = array_flip(array_map(static fn (Item $i): string => $i->key(), $listing->items));
        $this->written = array_intersect_key($this->written, $listed);
    }

    /**
     * Ends the last segment, writes the inventory and the tag files, and puts the bag in its place.
     *
     * @param  array<string, int|null>  $storeSchemas  by kind code; every kind of the bag is named, in its order
     */
    public function finish(BagDescription $description, array $storeSchemas): Inventory
    {
        $this->endSegment();
        $inventory = $this->inventory($storeSchemas);
        $this->lines(EncryptedContent::INVENTORY, $inventory->lines());
        if ($this->superseded !== []) {
            $this->lines(
                EncryptedContent::SUPERSEDED,
                array_map(
                    static fn (array $s): string => json_encode(
                        $s,
                        JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
                    ),
                    $this->superseded,
                ),
            );
        }
        [$digests, $bytes] = $this->payload();
        TagFiles::write("{$this->work}/bag", [
            TagFiles::INFO => $description->render("{$bytes}.".count($digests)),
            TagFiles::MANIFEST => Manifest::render($digests),
        ]);
        Tree::rename("{$this->work}/bag", $this->target);
        $this->folder->remove();

        return $inventory;
    }

    /** Ends the open segment, so that a later run finds all that was fetched. */
    public function pause(): void
    {
        try {
            $this->endSegment();
        } finally {
            $this->folder->letGo();
        }
    }

    /** Gives the open segment up; what is in whole segments stays for the next run. */
    public function abandon(): void
    {
        $this->folder->letGo();
        $this->message?->abandon();
        $this->message = null;
    }

    private function segmentFor(Item $item): void
    {
        $full = $this->segmentSize > 0 && $this->segmentSize + $item->bytes > $this->segmentBytes;
        if (
            $this->message !== null
            && ($full || $this->inSegment === [] || $this->inSegment[0]->kind !== $item->kind)
        ) {
            $this->endSegment();
        }
        if ($this->message === null) {
            $number = 1 + count(Listing::matching("{$this->work}/records/{$item->kind}-[0-9]*"));
            $this->segment = sprintf('%s-%04d', $item->kind, $number);
            @unlink("{$this->work}/segment.part");
            $this->message = $this->pgp->begin("{$this->work}/segment.part");
            $this->tar = TarWriter::to($this->message->stream());
            [$this->segmentSize, $this->inSegment] = [0, []];
        }
    }

    private function tar(): TarWriter
    {
        return $this->tar ?? throw new \LogicException('A segment is open.');
    }

    /** The record comes last: a segment without one is not counted on, and is written again. */
    private function endSegment(): void
    {
        if ($this->message === null) {
            return;
        }
        $this->tar()->end();
        $this->message->end();
        $this->message = null;
        Tree::rename("{$this->work}/segment.part", "{$this->work}/bag/data/{$this->segment}.tar.gpg");
        @unlink("{$this->work}/record.part");
        $items = $this->inSegment;
        $this->pgp->encrypt("{$this->work}/record.part", static function ($out) use ($items): void {
            foreach ($items as $i) {
                fwrite(
                    $out,
                    ItemRecord::line($i),
                );
            }
        });
        Tree::rename("{$this->work}/record.part", "{$this->work}/records/{$this->segment}");
    }

    /** What whole segments of earlier runs hold; what was closed for a key nobody here can read, and it begins anew. */
    private function recall(): void
    {
        if ($this->pgp->closedFor() !== null) {
            array_map(unlink(...), Listing::matching("{$this->work}/records/*"));
            array_map(unlink(...), Listing::matching("{$this->work}/bag/data/*.tar.gpg"));

            return;
        }
        foreach (Listing::matching("{$this->work}/records/*") as $record) {
            if (! is_file("{$this->work}/bag/data/".basename($record).'.tar.gpg')) {
                @unlink($record);

                continue;
            }
            foreach (explode("\n", trim($this->pgp->text($record))) as $line) {
                $item = ItemRecord::read($line) ?? throw new \LogicException('A whole record has whole lines.');
                $this->keep($item, basename($record));
                $this->names->keep($item);
            }
        }
    }

    private function keep(Item $item, string $segment): void
    {
        $key = $item->key();
        if (isset($this->places[$key])) {
            $this->superseded[] = ['segment' => $this->places[$key], 'path' => $item->stored()];
        }
        $this->written[$key] = $item;
        $this->places[$key] = $segment;
    }

    /** @param  iterable<string>  $lines */
    private function lines(string $name, iterable $lines): void
    {
        @unlink("{$this->work}/bag/data/{$name}");
        $this->pgp->encrypt("{$this->work}/bag/data/{$name}", static function ($out) use ($lines): void {
            foreach ($lines as $line) {
                fwrite($out, $line."\n");
            }
        });
    }

    /** @return array{array<string, string>, int} digests by path, and the bytes in all */
    private function payload(): array
    {
        $files = [];
        $bytes = 0;
        foreach (Tree::files("{$this->work}/bag/data") as $path => $info) {
            if (
                ! in_array($path, [EncryptedContent::INVENTORY, EncryptedContent::SUPERSEDED], true)
                && ! is_file("{$this->work}/records/".basename($path, '.tar.gpg'))
            ) {
                unlink($info->getPathname()); // a kill came between the segment and its record

                continue;
            }
            $files["data/{$path}"] = $info->getPathname();
            $bytes += (int) $info->getSize();
        }
        $digests = Digest::ofFiles(array_values($files));

        return [
            array_map(
                static fn (string $file): string => $digests[$file] ?? throw WriteFailed::at(basename($file)),
                $files,
            ),
            $bytes,
        ];
    }

    /** @param  array<string, int|null>  $storeSchemas */
    private function inventory(array $storeSchemas): Inventory
    {
        $items = array_filter($this->written, static fn (Item $i): bool => array_key_exists($i->kind, $storeSchemas));
        ksort($items, SORT_STRING);
        $counts = array_count_values(array_map(static fn (Item $i): string => $i->kind, $items));
        $kinds = array_map(
            static fn (string $kind, ?int $schema): KindHeader => new KindHeader($kind, $counts[$kind] ?? 0, $schema),
            array_keys($storeSchemas),
            $storeSchemas,
        );

        return Inventory::of($kinds, array_values($items));
    }
}
