<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Exception\WriteFailed;

/** Writes a bag's tag files; the tag manifest comes last, so that a bag without it is known to be unfinished. */
final class TagFiles
{
    public const DECLARATION = "BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n";

    public const TAG_MANIFEST = 'tagmanifest-sha256.txt';

    public const MANIFEST = 'manifest-sha256.txt';

    public const INFO = 'bag-info.txt';

    public const INVENTORY = 'inventory.jsonl';

    /**
     * @param  array<string, string>  $files text by name
     * @param  array<string, string>  $there digests of tag files that are there already, by name
     */
    public static function write(string $bag, array $files, array $there = []): void
    {
        $digests = $there;
        foreach (['bagit.txt' => self::DECLARATION] + $files as $name => $text) {
            self::put($bag, $name, $text);
            $digests[$name] = hash('sha256', $text);
        }
        self::put($bag, self::TAG_MANIFEST, Manifest::render($digests));
    }

    private static function put(string $bag, string $name, string $text): void
    {
        $stream = @fopen("{$bag}/{$name}", 'wb');
        if ($stream === false || @fwrite($stream, $text) !== strlen($text) || ! fsync($stream)) {
            throw WriteFailed::at($name);
        }
        fclose($stream);
    }
}
