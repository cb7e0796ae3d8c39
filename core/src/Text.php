<?php

declare(strict_types=1);

namespace JadeStep\Core;

/** Makes text from outside fit to stand in a message: no control characters, no broken encoding, no flood. */
final class Text
{
    public static function safe(string $text, int $longest = 200): string
    {
        $text = mb_scrub($text, 'UTF-8');
        $text = preg_replace_callback(
            '/[\p{C}\p{Zl}\p{Zp}]/u',
            static fn (array $m): string => sprintf('\\u{%X}', mb_ord($m[0], 'UTF-8')),
            $text,
        ) ?? '';

        return mb_strlen($text) > $longest ? mb_substr($text, 0, $longest - 1).'…' : $text;
    }

    /** What is not UTF-8 is taken for Windows-1252, which holds all of Latin-1 that a text may. */
    public static function inUtf8(string $text): string
    {
        return mb_check_encoding($text, 'UTF-8') ? $text : mb_convert_encoding($text, 'UTF-8', 'Windows-1252');
    }

    /** @param  list<string>  $parts  those that are empty are passed over */
    public static function joined(string $by, array $parts): string
    {
        return implode($by, self::said($parts));
    }

    /**
     * @param  list<string>  $parts
     * @return list<string> those that say something
     */
    public static function said(array $parts): array
    {
        return array_values(array_filter($parts, static fn (string $part): bool => $part !== ''));
    }
}
