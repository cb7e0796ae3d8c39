<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Item;

/** An item as a line in the notes of a bag that is being written. */
final class ItemRecord
{
    public static function line(Item $item): string
    {
        return json_encode(
            [$item->kind, $item->path, $item->bytes, $item->sha256, $item->modifiedAt->getTimestamp(), $item->file],
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
        )."\n";
    }

    /** @return Item|null null for a torn line, such as a kill leaves */
    public static function read(string $line): ?Item
    {
        $fields = json_decode($line, true, 4);
        $isWhole = is_array($fields) && array_is_list($fields) && in_array(count($fields), [5, 6], true);
        [$kind, $path, $bytes, $sha256, $modified, $file] = ($isWhole ? $fields : []) + array_fill(0, 6, null);

        return is_string($kind) && is_string($path) && is_int($bytes) && is_string($sha256) && is_int($modified)
            && ($file === null || is_string($file))
            ? new Item(
                $kind,
                $path,
                $bytes,
                $sha256,
                (new \DateTimeImmutable("@{$modified}"))->setTimezone(new \DateTimeZone('UTC')),
                $file,
            )
            : null;
    }
}
