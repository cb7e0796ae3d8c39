<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

/** The checksum algorithms of RFC 8493 section 2.4 that are checked, as they stand in a manifest's name. */
enum Algorithm: string
{
    case Sha512 = 'sha512';
    case Sha256 = 'sha256';
    case Sha1 = 'sha1';
    case Md5 = 'md5';

    /** @return int hex digits of a digest */
    public function digits(): int
    {
        return match ($this) {
            self::Sha512 => 128,
            self::Sha256 => 64,
            self::Sha1 => 40,
            self::Md5 => 32,
        };
    }
}
