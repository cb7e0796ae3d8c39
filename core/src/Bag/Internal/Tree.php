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
            \RecursiveIteratorIterator::CATCH_GET_CHILD,
        );
        foreach ($walk as $info) {
            if ($info instanceof \SplFileInfo && ($info->isLink() || ! $info->isDir())) {
                yield substr($info->getPathname(), strlen($folder) + 1) => $info;
            }
        }
    }

    /**
     * Everything below a folder that is no folder, as it is found: its path relative to it, its type as `find` tells it
     * (f file, l link, others p, s, b, c), its bytes, and how many names it has. Links are told, never followed. The
     * find program walks a hundred thousand files in a fraction of the time.
     *
     * @param  string|null  $but  a folder at the top that is left out
     * @return \Generator<string, array{string, int, int}>
     */
    public static function listing(string $folder, ?string $but = null): \Generator
    {
        if (! is_dir($folder)) {
            return;
        }
        $left = $but === null ? [] : ['-path', "./{$but}", '-prune', '-o'];
        $found = Program::records(
            ['find', '.', '-mindepth', '1', ...$left, '!', '-type', 'd', '-printf', '%y %s %n %P\0'],
            $folder,
        );
        foreach ($found ?? [] as $record) {
            [$type, $bytes, $names, $path] = explode(' ', $record, 4) + ['', '0', '1', ''];
            yield $path => [$type, (int) $bytes, (int) $names];
        }
        if ($found === null || $found->getReturn() !== 0 && ! isset($path)) {
            yield from self::walked($folder, $but);
        }
    }

    /** @return \Generator<string, array{string, int, int}> */
    private static function walked(string $folder, ?string $but): \Generator
    {
        foreach (self::files($folder) as $path => $info) {
            if ($but === null || ! str_starts_with($path, "{$but}/")) {
                $type = $info->isLink() ? 'l' : ($info->isFile() ? 'f' : 'p');
                $stat = @lstat($info->getPathname());
                $bytes = $type === 'f' ? (int) $info->getSize() : 0;
                yield $path => [$type, $bytes, $stat === false ? 1 : $stat['nlink']];
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
