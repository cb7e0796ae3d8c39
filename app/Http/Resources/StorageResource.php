<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Packages\StoragePlaces;
use App\Ports\PackageCache;

/** Where bags and packages are, and what they take. Where on the disk that is, is for leads only. */
final readonly class StorageResource implements \JsonSerializable
{
    public function __construct(
        private StoragePlaces $places,
        private PackageCache $cache,
        private bool $withFolders,
    ) {
    }

    public function jsonSerialize(): mixed
    {
        return [
            'bagsFolder' => $this->withFolders ? $this->places->bags() : null,
            'packagesFolder' => $this->withFolders ? $this->places->packages() : null,
            'bagsBytes' => $this->places->bagsLimit(),
            'packagesBytes' => $this->places->packagesLimit(),
            'bagsUsed' => StoragePlaces::bagBytes(),
            'packagesUsed' => $this->places->packageBytes($this->cache),
            'bagsFree' => (int) @disk_free_space($this->places->bags()),
            'packagesFree' => (int) @disk_free_space($this->places->packages()),
        ];
    }
}
