<?php

declare(strict_types=1);

namespace Standins\Rig;

use Standins\Http\Problem;

/** Stands for a disk that goes bad: flips one bit in a backup that lies on the shelf. */
final class BagHand
{
    /** @return string the words of what was done */
    public static function flip(string $serial): string
    {
        $root = getenv('JADE_BAGS') ?: (getenv('JADE_VAR') ?: dirname(__DIR__, 3).'/var').'/bags';
        $bags = array_filter(
            glob("{$root}/*", GLOB_ONLYDIR) ?: [],
            static fn (string $b): bool => str_contains(
                (string) @file_get_contents("{$b}/bag-info.txt"),
                "Device-Serial: {$serial}\n",
            ),
        );
        usort($bags, static fn (string $a, string $b): int => filemtime($b) <=> filemtime($a));
        $bag = $bags[0] ?? throw new Problem(409, 'no-bag', 'No backup of this device lies on the shelf.');
        $files = [];
        foreach (
            new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator("{$bag}/data", \FilesystemIterator::SKIP_DOTS),
            ) as $file
        ) {
            $file->isFile() && $file->getSize() > 0 ? ($files[] = $file->getPathname()) : null;
        }
        sort($files);
        $file =
            $files[intdiv(count($files), 2)]
            ?? throw new Problem(409, 'no-bag', 'The newest backup of this device holds no byte.');
        self::flipFirstBit($file);

        return 'One bit of '.basename($bag).', '.substr($file, strlen($bag) + 1).'.';
    }

    public static function flipFirstBit(string $file): void
    {
        $rights = fileperms($file) & 0o777;
        chmod($file, $rights | 0o200);
        $handle = fopen($file, 'r+b') ?: throw new Problem(409, 'no-bag', 'The file cannot be written.');
        $byte = (string) fread($handle, 1);
        fseek($handle, 0);
        fwrite($handle, chr(ord($byte) ^ 1));
        fclose($handle);
        chmod($file, $rights);
    }
}
