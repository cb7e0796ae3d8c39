<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

/** Whether a folder that is to be made would lie in another, by whatever name, link or mount. */
final class Nesting
{
    public static function isIn(string $new, string $bag): bool
    {
        $bagIs = @stat($bag);
        $there = self::absolute($new);
        while (! file_exists($there) && dirname($there) !== $there) {
            $there = dirname($there);
        }
        $there = realpath($there);
        while ($bagIs !== false && $there !== false) {
            $is = @stat($there);
            if ($is !== false && [$is['dev'], $is['ino']] === [$bagIs['dev'], $bagIs['ino']]) {
                return true;
            }
            if (dirname($there) === $there) {
                return false;
            }
            $there = dirname($there);
        }

        return $bagIs === false;
    }

    /** Without dot segments, since what lies behind one that is not there yet cannot be looked up. */
    private static function absolute(string $path): string
    {
        $parts = [];
        foreach (explode('/', str_starts_with($path, '/') ? $path : getcwd()."/{$path}") as $part) {
            if ($part === '..' && ! file_exists('/'.implode('/', $parts))) {
                array_pop($parts);
            } elseif ($part !== '' && $part !== '.') {
                $parts[] = $part;
            }
        }

        return '/'.implode('/', $parts);
    }
}
