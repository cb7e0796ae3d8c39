<?php

declare(strict_types=1);

namespace App\Ports\Disk;

use App\Ports\BagStore;

final readonly class DiskBagStore implements BagStore
{
    public function __construct(private string $root)
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
        return (int) disk_free_space($this->root());
    }

    private function root(): string
    {
        is_dir($this->root) || mkdir($this->root, 0o755, true);

        return $this->root;
    }
}
