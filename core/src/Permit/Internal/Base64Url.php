<?php

declare(strict_types=1);

namespace JadeStep\Core\Permit\Internal;

/** Base64url (RFC 7515 section 2) in its one spelling of its bytes: without padding, with no bits left over. */
final class Base64Url
{
    /** @return string|null null where it is spelt in any other way */
    public static function decode(string $text): ?string
    {
        $bytes = base64_decode(strtr($text, '-_', '+/'), true);

        return $bytes !== false && self::encode($bytes) === $text ? $bytes : null;
    }

    public static function encode(string $bytes): string
    {
        return rtrim(strtr(base64_encode($bytes), '+/', '-_'), '=');
    }
}
