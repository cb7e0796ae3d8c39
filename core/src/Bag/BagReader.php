<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Exception\UnreadableInventory;
use JadeStep\Core\Bag\Internal\TagFiles;

/** Reads what a bag says of itself, without reading its payload. */
final readonly class BagReader
{
    private function __construct(private string $folder)
    {
    }

    /** @throws NotABag */
    public static function open(string $folder): self
    {
        $folder = rtrim($folder, '/');
        if (! is_file("{$folder}/bagit.txt")) {
            throw NotABag::folder(basename($folder));
        }

        return new self($folder);
    }

    /** @throws NotABag where the bag is not a backup */
    public function description(): BagDescription
    {
        return BagDescription::parse((string) @file_get_contents("{$this->folder}/".TagFiles::INFO));
    }

    /** @throws UnreadableInventory */
    public function inventory(): Inventory
    {
        $file = @fopen("{$this->folder}/".TagFiles::INVENTORY, 'rb');
        if ($file === false) {
            throw UnreadableInventory::line(0, 'cannot be read: the bag has no inventory.jsonl');
        }
        try {
            return Inventory::read($file);
        } finally {
            fclose($file);
        }
    }

    /** @return resource */
    public function content(Item $item)
    {
        $stream = @fopen("{$this->folder}/data/".PayloadPath::parse($item->stored()), 'rb');

        return $stream === false
            ? throw UnreadableInventory::line(0, 'names '.$item->key().', which cannot be opened')
            : $stream;
    }
}
