<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Exchange\Exception\DoubleKey;

/** Reads JSON (RFC 8259) in which no key of an object stands twice: which of the two counts would be a guess. */
final class StrictJson
{
    private const STRING = '"(?:[^"\\\\]++|\\\\.)*+"';

    /**
     * @param  int<1, max>  $depth
     *
     * @throws \JsonException|DoubleKey
     */
    public static function decode(string $text, int $depth): mixed
    {
        $value = json_decode($text, false, $depth, JSON_THROW_ON_ERROR);
        // strings that no colon follows are skipped, so that what is left are the keys
        $written = preg_match_all('/'.self::STRING.'(?:\s*+:|(*SKIP)(*FAIL))/s', $text);
        if ($written !== self::keys($value)) {
            throw DoubleKey::at(self::firstDouble($text));
        }

        return $value;
    }

    private static function keys(mixed $value): int
    {
        $count = 0;
        $waiting = [$value];
        while ($waiting !== []) {
            $next = array_pop($waiting);
            $below = is_object($next) ? get_object_vars($next) : (is_array($next) ? $next : []);
            $count += is_object($next) ? count($below) : 0;
            foreach ($below as $entry) {
                if (is_object($entry) || is_array($entry)) {
                    $waiting[] = $entry;
                }
            }
        }

        return $count;
    }

    /** @return string the JSON Pointer (RFC 6901) of the first key that stood before in its object */
    private static function firstDouble(string $text): string
    {
        preg_match_all('/'.self::STRING.'|[{}\[\],:]/s', $text, $tokens);
        /** @var list<array{array<string, true>, string|int}> $open the keys of each level, and the place in it */
        $open = [];
        foreach ($tokens[0] as $i => $token) {
            $at = count($open) - 1;
            if ($token === '{' || $token === '[') {
                $open[] = [[], 0];
            } elseif ($token === '}' || $token === ']') {
                array_pop($open);
            } elseif ($token === ',' && $at >= 0 && is_int($open[$at][1])) {
                $open[$at][1]++;
            } elseif ($token[0] === '"' && ($tokens[0][$i + 1] ?? '') === ':' && $at >= 0) {
                $key = json_decode($token);
                $key = is_string($key) ? $key : $token;
                $open[$at][1] = $key;
                if (isset($open[$at][0]["k{$key}"])) {
                    return self::pointer(array_map(strval(...), array_column($open, 1)));
                }
                $open[$at][0]["k{$key}"] = true;
            }
        }

        return '';
    }

    /** @param  list<string>  $steps */
    private static function pointer(array $steps): string
    {
        return implode('', array_map(
            static fn (string $step): string => '/'.str_replace(['~', '/'], ['~0', '~1'], $step),
            $steps,
        ));
    }
}
