<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/** Which package is meant: its digest says all, the rest is for people. */
final readonly class PackageName
{
    /** @param  string  $sha256  64 lower-case hex digits */
    public function __construct(public string $fileName, public int $bytes, public string $sha256)
    {
    }
}
