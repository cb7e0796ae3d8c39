<?php

declare(strict_types=1);

namespace App\Ports\Fake;

use App\Ports\PackageCache;

/** Packages without a disk: those that are whole, and those that are damaged. */
final class FakePackageCache implements PackageCache
{
    /** @param  array<string, bool>  $sound  by digest; those that are not named are not there */
    public function __construct(private array $sound = [])
    {
    }

    public function file(string $sha256): string
    {
        return "/nowhere/{$sha256}";
    }

    public function part(string $sha256): string
    {
        return "/nowhere/{$sha256}.part";
    }

    public function isSound(string $sha256, callable $read): ?bool
    {
        return $this->sound[$sha256] ?? null;
    }

    public function keepIfSound(string $sha256, callable $read): bool
    {
        return $this->sound[$sha256] ??= true;
    }
}
