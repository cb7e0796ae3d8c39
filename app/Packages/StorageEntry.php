<?php

declare(strict_types=1);

namespace App\Packages;

use JadeStep\Core\Exchange\Fields;

/** Where bags and packages are to be kept, and how many bytes they may take: null for as much as the disk has. */
final readonly class StorageEntry
{
    public function __construct(
        public string $bagsFolder,
        public string $packagesFolder,
        public ?int $bagsBytes,
        public ?int $packagesBytes,
    ) {
    }

    public function fields(): Fields
    {
        return Fields::of(get_object_vars($this));
    }
}
