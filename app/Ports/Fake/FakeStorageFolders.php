<?php

declare(strict_types=1);

namespace App\Ports\Fake;

use App\Ports\StorageFolders;

/** Folders of a test's own, so that the stores on the disk work in them. */
final readonly class FakeStorageFolders implements StorageFolders
{
    public function __construct(private string $root, private ?int $left = null)
    {
    }

    public function bags(): string
    {
        return "{$this->root}/bags";
    }

    public function packages(): string
    {
        return "{$this->root}/packages";
    }

    public function bagsLeft(): ?int
    {
        return $this->left;
    }
}
