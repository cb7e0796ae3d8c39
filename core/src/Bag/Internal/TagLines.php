<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

/** Tag files of the form "Label: value" (RFC 8493 section 2.2.2), where a line that starts with white space goes on. */
final class TagLines
{
    /** @return list<array{string, string}> label and value, in order */
    public static function parse(string $text): array
    {
        $labels = [];
        $values = [];
        foreach (explode("\n", str_replace(["\r\n", "\r"], "\n", $text)) as $line) {
            if (preg_match('/\A[ \t]+(.*)\z/', $line, $m) === 1 && $values !== []) {
                $values[count($values) - 1] .= ' '.trim($m[1]);
            } elseif (preg_match('/\A([^:\s][^:]*?)\s*:[ \t]*(.*)\z/', $line, $m) === 1) {
                $labels[] = $m[1];
                $values[] = trim($m[2]);
            }
        }

        return array_map(static fn (string $l, string $v): array => [$l, $v], $labels, $values);
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
