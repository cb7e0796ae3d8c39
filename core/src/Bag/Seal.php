<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Internal\Listing;
use JadeStep\Core\Bag\Internal\Tree;

/** Takes the right to write from every file and folder of a bag. */
final class Seal
{
    public static function close(string $bag): void
    {
        foreach (Tree::files($bag) as $info) {
            @chmod($info->getPathname(), 0o444);
        }
        self::folders($bag, 0o555);
    }

    public static function isClosed(string $bag): bool
    {
        clearstatcache();
        foreach (Tree::files($bag) as $info) {
            if (($info->getPerms() & 0o222) !== 0) {
                return false;
            }
        }

        return is_dir($bag);
    }

    private static function folders(string $folder, int $mode): void
    {
        foreach (Listing::names($folder) as $name) {
            if (is_dir("{$folder}/{$name}") && ! is_link("{$folder}/{$name}")) {
                self::folders("{$folder}/{$name}", $mode);
            }
        }
        @chmod($folder, $mode);
    }
}
