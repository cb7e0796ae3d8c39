<?php

declare(strict_types=1);

namespace JadeStep\Core;

/** Amounts of bytes on a disk as people read them, in decimal gigabytes with one place. */
final class Amount
{
    /** In bytes. */
    public const GIGABYTE = 1e9;

    /** What there is: never told as more. */
    public static function there(int|float $bytes): string
    {
        return self::told(floor($bytes / self::GIGABYTE * 10));
    }

    /** What is needed: never told as less. */
    public static function needed(int|float $bytes): string
    {
        return self::told(ceil($bytes / self::GIGABYTE * 10));
    }

    private static function told(float $tenths): string
    {
        return number_format($tenths / 10, 1).' GB';
    }
}
