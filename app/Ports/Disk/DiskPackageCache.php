<?php

declare(strict_types=1);

namespace App\Ports\Disk;

use App\Ports\PackageCache;
use App\Ports\StorageFolders;
use JadeStep\Core\Bag\Digest;

final readonly class DiskPackageCache implements PackageCache
{
    public function __construct(private StorageFolders $places)
    {
    }

    public function file(string $sha256): string
    {
        if (preg_match('/\A[0-9a-f]{64}\z/', $sha256) !== 1) {
            throw new \InvalidArgumentException('Not a SHA-256.');
        }
        $root = $this->places->packages();
        is_dir($root) || mkdir($root, 0o755, true);

        return "{$root}/{$sha256}.fwp";
    }

    public function part(string $sha256): string
    {
        return $this->file($sha256).'.part';
    }

    public function isSound(string $sha256, callable $read): ?bool
    {
        $file = $this->file($sha256);

        return is_file($file) ? Digest::ofFile($file, $read) === $sha256 : null;
    }

    public function keepIfSound(string $sha256, callable $read): bool
    {
        $sound = Digest::ofFile($this->part($sha256), $read) === $sha256;
        $sound ? rename($this->part($sha256), $this->file($sha256)) : @unlink($this->part($sha256));

        return $sound;
    }
}
