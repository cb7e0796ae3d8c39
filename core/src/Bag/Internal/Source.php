<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Exception\SourceStalled;

/**
 * Reads a stream piece by piece, and tells of every piece, also of an empty one: a stream that waits for its other side
 * gives those, so that whoever reads can say that it is still there.
 */
final class Source
{
    private const CHUNK = 262_144;

    /** So many empty pieces in a row, each after the stream's own time limit, and nothing more is expected. */
    public const PATIENCE = 12;

    /**
     * @param  resource  $content
     * @param  callable(string): void  $take
     * @param  (callable(int): void)|null  $progress  told the bytes of each piece, 0 while nothing comes
     *
     * @throws SourceStalled
     */
    public static function each($content, string $path, callable $take, ?callable $progress): void
    {
        $empty = 0;
        while (! feof($content)) {
            $text = (string) fread($content, self::CHUNK);
            $empty = $text === '' ? $empty + 1 : 0;
            if ($progress !== null) {
                $progress(strlen($text));
            }
            if ($text === '' && $empty > self::PATIENCE) {
                throw SourceStalled::at($path);
            }
            if ($text !== '') {
                $take($text);
            }
        }
    }
}
