<?php

declare(strict_types=1);

namespace App\Ports;

/** Packages that were fetched, by digest. A package that is not whole yet has its own place, so that it can go on. */
interface PackageCache
{
    /** @return string the file, whether it is there or not */
    public function file(string $sha256): string;

    /** @return string where the package grows until it is whole */
    public function part(string $sha256): string;

    /**
     * Reads the file and compares its digest: null where there is none.
     *
     * @param  callable(int): void  $read  told the bytes read since the last call
     */
    public function isSound(string $sha256, callable $read): ?bool;

    /**
     * Reads the part, and takes it into its place where it is whole.
     *
     * @param  callable(int): void  $read
     * @return bool false where its bytes are wrong: then it was thrown away
     */
    public function keepIfSound(string $sha256, callable $read): bool;
}
