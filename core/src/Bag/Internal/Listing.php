<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

/** What a folder or a file holds, by the functions that say false where there is nothing to read. */
final class Listing
{
    /** @return list<string> names, in whatever order */
    public static function names(string $folder): array
    {
        $names = @scandir($folder, SCANDIR_SORT_NONE);

        return $names === false ? [] : array_values(array_diff($names, ['.', '..']));
    }

    /** @return list<string> paths that fit, sorted by bytes */
    public static function matching(string $pattern): array
    {
        $paths = glob($pattern, GLOB_NOSORT);
        $paths = $paths === false ? [] : $paths;
        sort($paths, SORT_STRING);

        return $paths;
    }

    /** @return list<string> without their ends */
    public static function lines(string $file): array
    {
        $lines = @file($file, FILE_IGNORE_NEW_LINES);

        return $lines === false ? [] : $lines;
    }

    /**
     * Line by line, as BagIt ends them: with a line feed, a carriage return, or both.
     *
     * @param  resource  $file  which is closed at the end
     * @return \Generator<int, string> without their ends, numbered from 0
     */
    public static function linesOf($file): \Generator
    {
        $number = 0;
        try {
            while (($line = fgets($file)) !== false) {
                $line = rtrim($line, "\r\n");
                foreach (str_contains($line, "\r") ? explode("\r", $line) : [$line] as $part) {
                    yield $number++ => $part;
                }
            }
        } finally {
            fclose($file);
        }
    }
}
