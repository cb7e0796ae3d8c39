<?php

declare(strict_types=1);

namespace App\Ports\Disk;

use App\Ports\BagStore;
use App\Ports\StorageFolders;

final readonly class DiskBagStore implements BagStore
{
    public function __construct(private StorageFolders $places)
    {
    }

    public function folder(string $bagId): string
    {
        if (preg_match('/\A[A-Za-z0-9][A-Za-z0-9_-]{0,79}\z/', $bagId) !== 1) {
            throw new \InvalidArgumentException('Not the id of a bag.');
        }

        return "{$this->root()}/{$bagId}";
    }

    public function has(string $bagId): bool
    {
        return is_dir($this->folder($bagId));
    }

    public function remove(string $bagId): void
    {
        $folder = $this->folder($bagId);
        foreach ([$folder, "{$folder}.writing"] as $there) {
            // taken out of sight first, so that a kill in between leaves no half bag under the name
            $gone = dirname($folder).'/.gone-'.bin2hex(random_bytes(6));
            if (is_dir($there) && @rename($there, $gone)) {
                // folders only: the files may share their bytes, and so their rights, with a sealed bag
                exec('find '.escapeshellarg($gone).' -type d -exec chmod u+w {} +; rm -rf '.escapeshellarg($gone));
            }
        }
    }

    public function freeBytes(): int
    {
        $free = (int) disk_free_space($this->root());
        $left = $this->places->bagsLeft();

        return $left === null ? $free : max(0, min($free, $left));
    }

    private function root(): string
    {
        $root = $this->places->bags();
        is_dir($root) || mkdir($root, 0o755, true);

        return $root;
    }
}
