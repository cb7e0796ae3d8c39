<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Exception\WriteFailed;

/** Walks and makes folders. Links are reported, never followed. */
final class Tree
{
    /** @return \Generator<string, \SplFileInfo> every file and link below the folder, by its path relative to it */
    public static function files(string $folder): \Generator
    {
        if (! is_dir($folder)) {
            return;
        }
        $walk = new \RecursiveIteratorIterator(
            new \RecursiveDirectoryIterator(
                $folder,
                \FilesystemIterator::SKIP_DOTS,
            ),
            \RecursiveIteratorIterator::SELF_FIRST,
        );
        foreach ($walk as $info) {
            if ($info instanceof \SplFileInfo && ($info->isLink() || ! $info->isDir())) {
                yield substr($info->getPathname(), strlen($folder) + 1) => $info;
            }
        }
    }

    public static function makeFolder(string $folder): void
    {
        if (! is_dir($folder) && ! @mkdir($folder, 0o755, true) && ! is_dir($folder)) {
            throw WriteFailed::at(basename($folder));
        }
    }

    public static function remove(string $folder): void
    {
        if (is_link($folder) || ! is_dir($folder)) {
            return;
        }
        @chmod($folder, 0o755);
        foreach (Listing::names($folder) as $name) {
            $path = "{$folder}/{$name}";
            is_dir($path) && ! is_link($path) ? self::remove($path) : @unlink($path);
        }
        @rmdir($folder);
    }

    public static function rename(string $from, string $to): void
    {
        if (! @rename($from, $to)) {
            throw WriteFailed::at(basename($to));
        }
    }
}
