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
use JadeStep\Core\Bag\Internal\WrittenItems;

/**
 * Writes an encrypted bag: per kind segments that are POSIX tars in OpenPGP messages, and the inventory as another.
 *
 * A segment that is whole has a record beside it, encrypted like itself, which names its items: killed at any point,
 * the writer goes on after the last whole segment. An item that is larger than a segment has one of its own. Where an
 * item is in several segments, since it changed meanwhile, the inventory says which of them counts: the last.
 */
final class EncryptedBagWriter implements Writer
{
    use WrittenItems;

    public const SEGMENT_BYTES = 268_435_456;

    private const SEGMENT_ITEMS = 20_000;

    private ?PgpMessage $message = null;

    private ?TarWriter $tar = null;

    private string $segment = '';

    private int $segmentSize = 0;

    /** @var list<Item> */
    private array $inSegment = [];

    private readonly StoredNames $names;

    /** @var array<string, true> names of segments that are an earlier bag's too */
    private array $shared = [];

    private function __construct(
        private readonly WorkFolder $folder,
        private readonly string $work,
        private readonly string $target,
        private readonly OpenPgp $pgp,
        private readonly int $segmentBytes,
    ) {
        $this->names = new StoredNames;
        $this->written = new Items; // each says which segment holds the entry that counts
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

    /**
     * Whole segments are shared, as they are: what in them has changed since then, or is not there any more, does not
     * count, and what has changed comes in a segment of its own.
     */
    public function share(EarlierBag $earlier, Inventory $listing, callable $had): void
    {
        foreach ($earlier->segmentsFor($listing) as $segment => $file) {
            $place = "{$this->work}/bag/data/{$segment}.tar.gpg";
            if (is_file("{$this->work}/records/{$segment}")) {
                continue; // an earlier run has written one of this name
            }
            @unlink($place);
            Tree::makeFolder(dirname($place));
            if (! @link($file, $place)) {
                continue;
            }
            $this->shared[$segment] = true;
            foreach ($earlier->inSegment($segment) as $item) {
                $isFree = ! $this->has($item) && $this->names->isFree($item->stored());
                if ($isFree && $listing->items->hold($item)) {
                    $this->written->put($item);
                    $this->names->keep($item);
                    $had($item);
                }
            }
        }
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
        $known = $this->written->find($listed->key());
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
            $this->segment,
        );
        $this->written->put($item);
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

    /**
     * Ends the last segment, writes the inventory and the tag files, and puts the bag in its place.
     *
     * @param  array<string, int|null>  $storeSchemas  by kind code; every kind of the bag is named, in its order
     */
    public function finish(BagDescription $description, array $storeSchemas): Inventory
    {
        $this->endSegment();
        $inventory = Inventory::ofKinds($storeSchemas, $this->written);
        @unlink("{$this->work}/bag/data/".EncryptedContent::INVENTORY);
        $this->pgp->encrypt(
            "{$this->work}/bag/data/".EncryptedContent::INVENTORY,
            static function ($out) use ($inventory): void {
                foreach ($inventory->lines() as $line) {
                    fwrite($out, $line."\n");
                }
            },
        );
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
        $full = $this->segmentSize > 0 && $this->segmentSize + $item->bytes > $this->segmentBytes
            || count($this->inSegment) >= self::SEGMENT_ITEMS;
        if (
            $this->message !== null
            && ($full || $this->inSegment === [] || $this->inSegment[0]->kind !== $item->kind)
        ) {
            $this->endSegment();
        }
        if ($this->message === null) {
            $this->segment = sprintf('%s-%04d', $item->kind, 1 + $this->lastNumber($item->kind));
            @unlink("{$this->work}/segment.part");
            $this->message = $this->pgp->begin("{$this->work}/segment.part");
            $this->tar = TarWriter::to($this->message->stream());
            [$this->segmentSize, $this->inSegment] = [0, []];
        }
    }

    /** @return int the number of the kind's last segment, whether this bag's own or shared; 0 before the first */
    private function lastNumber(string $kind): int
    {
        $numbers = [0];
        $records = array_map(basename(...), Listing::matching("{$this->work}/records/{$kind}-[0-9]*"));
        foreach ([...$records, ...array_keys($this->shared)] as $segment) {
            $numbers[] = preg_match('/\A(.+)-(\d+)\z/', $segment, $m) === 1 && $m[1] === $kind ? (int) $m[2] : 0;
        }

        return max($numbers);
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
                $this->written->put($item->in(basename($record)));
                $this->names->keep($item);
            }
        }
    }

    /** @return array{array<string, string>, int} digests by path, and the bytes in all */
    private function payload(): array
    {
        $files = [];
        $bytes = $this->ownBytes = 0;
        foreach (Tree::listing("{$this->work}/bag/data") as $path => [$type, $size, $names]) {
            $segment = basename($path, '.tar.gpg');
            if (
                $path !== EncryptedContent::INVENTORY
                && ! isset($this->shared[$segment])
                && ! is_file("{$this->work}/records/{$segment}")
            ) {
                unlink("{$this->work}/bag/data/{$path}"); // a kill came between the segment and its record

                continue;
            }
            $files["data/{$path}"] = ["{$this->work}/bag/data/{$path}", $size, ''];
            $bytes += $size;
            $this->ownBytes += $names === 1 ? $size : 0;
        }
        $digests = [];
        foreach (Digest::others($files) as $path => $digest) {
            $digests[$path] = $digest ?? throw WriteFailed::at(basename($path));
        }

        return [$digests, $bytes];
    }
}
