<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Internal\Listing;

/**
 * One digest for a whole bag: two bags with the same one hold the same bytes, as far as their manifests are true. It is
 * the SHA-256 of the lines `DIGEST  NAME` of all tag manifests, in the order of their names; a tag manifest lists the
 * manifests (RFC 8493, 2.2.1), and those list every file.
 */
final class Fingerprint
{
    /**
     * @return string 64 hexadecimal digits
     *
     * @throws NotABag where the folder is not there, or lists nothing
     */
    public static function of(string $bag): string
    {
        $names = is_dir($bag)
            ? array_values(array_filter(
                Listing::names($bag),
                static fn (string $name): bool => preg_match('/\Atagmanifest-[a-z0-9]+\.txt\z/', $name) === 1,
            ))
            : [];
        sort($names, SORT_STRING);
        $lines = '';
        foreach ($names as $name) {
            $digest = @hash_file('sha256', "{$bag}/{$name}");
            $digest === false && throw NotABag::without($name);
            $lines .= "{$digest}  {$name}\n";
        }

        return $lines === '' ? throw NotABag::without('tagmanifest-sha256.txt') : hash('sha256', $lines);
    }
}
