<?php

declare(strict_types=1);

namespace App\Ports\Http;

/**
 * Reads the texts of one list in a JSON object (RFC 8259) as they come, since they may be more than fit in memory.
 */
final class NamesFromJson
{
    private const PIECE_BYTES = 65_536;

    private const LONGEST_NAME = 65_536;

    private const NAME = '/\G\s*("(?:[^"\\\\]|\\\\.)*+")\s*([,\]])/s';

    /**
     * @param  resource  $stream  a JSON object, of which the first member of this name is a list of texts; it is closed
     *   at the end
     * @return \Generator<string>
     *
     * @throws \UnexpectedValueException where it is cut short or is not such an object
     */
    public static function in($stream, string $member): \Generator
    {
        $begin = '/\A\s*\{(?:.*?[,\s])?"'.preg_quote($member, '/').'"\s*:\s*\[/s';
        $text = '';
        $isIn = false;
        try {
            do {
                $piece = fread($stream, self::PIECE_BYTES);
                $text .= (string) $piece;
                if (! $isIn && preg_match($begin, $text, $m) === 1) {
                    $isIn = true;
                    $text = substr($text, strlen($m[0]));
                }
                $at = 0;
                while ($isIn && preg_match(self::NAME, $text, $m, 0, $at) === 1) {
                    $at += strlen($m[0]);
                    yield self::text($m[1]);
                    if ($m[2] === ']') {
                        return;
                    }
                }
                $text = substr($text, $at);
                if ($isIn && preg_match('/\A\s*\]/', $text) === 1) {
                    return;
                }
            } while (! feof($stream) && strlen($text) <= self::LONGEST_NAME + self::PIECE_BYTES);
            throw new \UnexpectedValueException("Its answer has no list of texts that is called {$member}.");
        } finally {
            fclose($stream);
        }
    }

    private static function text(string $quoted): string
    {
        $text = json_decode($quoted);

        return is_string($text) ? $text : throw new \UnexpectedValueException('Its answer holds what is no text.');
    }
}
