<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\BagException;

/** An earlier bag of a device, whose files a new one may have too instead of fetching the same bytes again. */
final readonly class EarlierBag
{
    /** What an item takes in a tar beside its content: a header, and half a block that is filled up. */
    private const TAR_BYTES = 768;

    /** Of the mode in a file's status: the bits that tell its type, and that of an ordinary file. */
    private const TYPE = 0o170000;

    private const FILE = 0o100000;

    /** @param  int  $atMost  so many names may one file have */
    private function __construct(private string $folder, private Items $items, private int $atMost)
    {
    }

    /** @return self|null null where the bag does not say what it holds */
    public static function open(string $folder, int $atMost): ?self
    {
        try {
            return new self(rtrim($folder, '/'), BagReader::open($folder)->inventory()->items, $atMost);
        } catch (BagException) {
            return null;
        }
    }

    /** @return self|null null where this does not open it */
    public static function opened(string $folder, OpenPgp $by, int $atMost): ?self
    {
        try {
            return new self(rtrim($folder, '/'), (new EncryptedContent($folder, $by))->inventory()->items, $atMost);
        } catch (BagException) {
            return null;
        }
    }

    /**
     * Segments of an encrypted bag that are worth having as they are, since at least half of each is listed still.
     *
     * @return array<string, string> their files by their names
     */
    public function segmentsFor(Inventory $listing): array
    {
        $worth = [];
        foreach ($this->items->stillIn($listing->items) as $segment => [$items, $bytes]) {
            $file = "{$this->folder}/data/{$segment}.tar.gpg";
            $size = $this->sizeWhereSharable($file);
            if ($size !== null && 2 * ($bytes + self::TAR_BYTES * $items) >= $size) {
                $worth[$segment] = $file;
            }
        }

        return $worth;
    }

    /** @return iterable<Item> what a segment has, and the inventory counts */
    public function inSegment(string $segment): iterable
    {
        return $this->items->inSegment($segment);
    }

    /**
     * The file that has the bytes of an item, where it may have one more name.
     *
     * @return string|null its path; null where there is none, or none that looks like it
     */
    public function fileOf(Item $wanted): ?string
    {
        $stored = $this->items->withContent($wanted->sha256)?->stored();

        return $stored === null ? null : $this->fileAt($stored, $wanted->bytes);
    }

    /** @return iterable<Item> of a listing what this bag has too, under the same name, as it stores it */
    public function unchanged(Inventory $listing): iterable
    {
        return $listing->items->asIn($this->items);
    }

    /** What is unchanged, but for those that a set has by their keys. */
    public function unchangedBut(Inventory $listing, KeySet $left): Items
    {
        return $listing->items->allAsIn($this->items, $left);
    }

    /** The folder that its items are stored in. */
    public function payload(): string
    {
        return "{$this->folder}/data";
    }

    /** @return string|null the file, where it is of this size and may have one more name */
    public function fileAt(string $stored, int $bytes): ?string
    {
        $file = "{$this->folder}/data/{$stored}";

        return $this->sizeWhereSharable($file) === $bytes ? $file : null;
    }

    /** @return int|null its bytes; null where it may not have one more name, or is no ordinary file */
    private function sizeWhereSharable(string $file): ?int
    {
        $stat = @lstat($file);

        return $stat !== false && ($stat['mode'] & self::TYPE) === self::FILE && $stat['nlink'] < $this->atMost
            ? $stat['size']
            : null;
    }
}
