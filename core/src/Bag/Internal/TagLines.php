<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

/** Tag files of the form "Label: value" (RFC 8493 section 2.2.2), where a line that starts with white space goes on. */
final class TagLines
{
    private const LABELLED = '/\A([^:\s][^:]*?)\s*:[ \t]*(.*)\z/';

    /** @return list<array{string, string}> label and value, in order */
    public static function parse(string $text): array
    {
        $labels = [];
        $values = [];
        foreach (self::split($text) as $line) {
            if (preg_match('/\A[ \t]+(.*)\z/', $line, $m) === 1 && $values !== []) {
                $values[count($values) - 1] .= ' '.trim($m[1]);
            } elseif (preg_match(self::LABELLED, $line, $m) === 1) {
                $labels[] = $m[1];
                $values[] = trim($m[2]);
            }
        }

        return array_map(static fn (string $l, string $v): array => [$l, $v], $labels, $values);
    }

    /**
     * The text with other values for some labels, in their places; those that were not there come last. All else stays
     * as it is.
     *
     * @param  array<string, string|null>  $values  by label; null for a label that is left out
     */
    public static function with(string $text, array $values): string
    {
        $names = array_combine(array_map(strtolower(...), array_keys($values)), array_keys($values));
        $lines = [];
        $isKept = true;
        foreach (self::split(rtrim($text, "\r\n")) as $line) {
            $isFirst = preg_match(self::LABELLED, $line, $m) === 1;
            $name = $isFirst ? $names[strtolower($m[1])] ?? null : null;
            $isKept = $isFirst ? $name === null : $isKept; // a line that is folded goes with its first
            if ($name !== null) {
                array_push($lines, ...self::lineOf($name, $values[$name]));
                $values[$name] = null;
            } elseif ($isKept) {
                $lines[] = $line;
            }
        }
        foreach ($values as $name => $value) {
            array_push($lines, ...self::lineOf($name, $value));
        }

        return implode("\n", $lines)."\n";
    }

    /** @return list<string> */
    private static function lineOf(string $label, ?string $value): array
    {
        return $value === null ? [] : ["{$label}: {$value}"];
    }

    /** @return list<string> */
    private static function split(string $text): array
    {
        return explode("\n", str_replace(["\r\n", "\r"], "\n", $text));
    }

    /** @param  list<array{string, string}>  $pairs */
    public static function render(array $pairs): string
    {
        return implode('', array_map(
            static fn (array $p): string => $p[0].': '.preg_replace('/[\x00-\x1F\x7F]+/', ' ', $p[1])."\n",
            $pairs,
        ));
    }
}
