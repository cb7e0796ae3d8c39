<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Exception\WriteFailed;

/** Writes a bag's tag files; the tag manifest comes last, so that a bag without it is known to be unfinished. */
final class TagFiles
{
    private const BUFFER = 65_536;

    public const DECLARATION = "BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n";

    public const TAG_MANIFEST = 'tagmanifest-sha256.txt';

    public const MANIFEST = 'manifest-sha256.txt';

    public const INFO = 'bag-info.txt';

    public const INVENTORY = 'inventory.jsonl';

    /**
     * @param  array<string, string|iterable<string>>  $files  text by name, whole or in pieces
     * @param  array<string, string>  $there digests of tag files that are there already, by name
     */
    public static function write(string $bag, array $files, array $there = []): void
    {
        $digests = $there;
        foreach (['bagit.txt' => self::DECLARATION] + $files as $name => $text) {
            $digests[$name] = self::put($bag, $name, is_string($text) ? [$text] : $text);
        }
        self::put($bag, self::TAG_MANIFEST, [Manifest::render($digests)]);
    }

    /**
     * @param  iterable<string>  $pieces
     * @return string the file's SHA-256
     */
    private static function put(string $bag, string $name, iterable $pieces): string
    {
        $stream = @fopen("{$bag}/{$name}", 'wb');
        $stream !== false || throw WriteFailed::at($name);
        $digest = RunningDigest::begin();
        foreach (self::together($pieces) as $text) {
            @fwrite($stream, $text) === strlen($text) || throw WriteFailed::at($name);
            $digest->add($text);
        }
        fsync($stream) || throw WriteFailed::at($name);
        fclose($stream);

        return $digest->end();
    }

    /**
     * @param  iterable<string>  $pieces
     * @return \Generator<string> fewer and longer ones
     */
    private static function together(iterable $pieces): \Generator
    {
        $text = '';
        foreach ($pieces as $piece) {
            $text .= $piece;
            if (strlen($text) > self::BUFFER) {
                yield $text;
                $text = '';
            }
        }
        yield $text;
    }
}
