<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Internal\Listing;
use JadeStep\Core\Bag\Internal\ManifestSet;

/** Every file of a sound bag with its SHA-256: what another place has to have, and to give back. */
final class ListedFiles
{
    /**
     * The tag manifests come last, which no manifest lists: what has them has all.
     *
     * @return \Generator<string, string> 64 hexadecimal digits, by path within the bag
     *
     * @throws NotABag where a list cannot be read, or has a line that is no digest and path
     */
    public static function of(string $bag): \Generator
    {
        yield from self::lines($bag, 'manifest-sha256.txt');
        yield from self::lines($bag, 'tagmanifest-sha256.txt');
        foreach (Listing::names($bag) as $name) {
            $digest = ManifestSet::isTagManifest($name) ? hash_file('sha256', "{$bag}/{$name}") : null;
            if (is_string($digest)) {
                yield $name => $digest;
            }
        }
    }

    /** @return \Generator<string, string> */
    private static function lines(string $bag, string $name): \Generator
    {
        $file = @fopen("{$bag}/{$name}", 'rb');
        $file !== false || throw NotABag::without($name);
        foreach (Listing::linesOf($file) as $line) {
            if ($line === '') {
                continue;
            }
            preg_match('/\A([0-9A-Fa-f]{64})[ \t]+\*?(.+)\z/', $line, $m) === 1 || throw NotABag::without($name);
            yield PayloadPath::decode($m[2])->path => strtolower($m[1]);
        }
    }
}
