<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

/** The checksum of a tar header (POSIX.1-2001, pax): the sum of its bytes, the field of the sum itself being blank. */
final class TarSum
{
    public static function of(string $header): int
    {
        return array_sum(array_map(ord(...), str_split($header)));
    }
}
