<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** Matches what was backed up with what the device lists now: by kind and path, then by digest. */
final class Reconciliation
{
    /** @param  list<RewriteRule>  $rules */
    public static function compare(Inventory $before, Inventory $after, array $rules): Comparison
    {
        $had = self::byKind($before);
        $has = self::byKind($after);
        $kinds = array_values(array_unique([...array_keys($had), ...array_keys($has)]));

        return new Comparison(array_map(
            static fn (string $kind): KindComparison => self::kind($kind, $had[$kind] ?? [], $has[$kind] ?? [], $rules),
            $kinds,
        ));
    }

    /**
     * @param  array<string, Item>  $had  by path
     * @param  array<string, Item>  $has  by path
     * @param  list<RewriteRule>  $rules
     */
    private static function kind(string $kind, array $had, array $has, array $rules): KindComparison
    {
        $same = 0;
        $changed = [];
        $open = [];
        foreach ($had as $path => $item) {
            $now = $has[$path] ?? null;
            if ($now?->sha256 === $item->sha256) {
                $same++;
                unset($has[$path]);
            } elseif ($now !== null && ($rule = self::ruleFor($item, $rules)) !== null) {
                $changed[] = new Rewritten((string) $path, $rule);
                unset($has[$path]);
            } else {
                $open[] = $item;
            }
        }
        [$moved, $missing, $extra] = self::byDigest($open, $has);

        return new KindComparison($kind, count($had), $same + $moved, $changed, $missing, $extra);
    }

    /**
     * @param  list<Item>  $open
     * @param  array<string, Item>  $has
     * @return array{int, list<Item>, list<Item>} matched, missing, extra
     */
    private static function byDigest(array $open, array $has): array
    {
        $places = [];
        foreach ($has as $path => $item) {
            $places[$item->sha256][] = $path;
        }
        $missing = [];
        foreach ($open as $item) {
            $path = isset($places[$item->sha256]) ? array_shift($places[$item->sha256]) : null;
            if ($path === null) {
                $missing[] = $item;
            } else {
                unset($has[$path]);
            }
        }

        return [count($open) - count($missing), $missing, array_values($has)];
    }

    /** @param  list<RewriteRule>  $rules */
    private static function ruleFor(Item $item, array $rules): ?RewriteRule
    {
        foreach ($rules as $rule) {
            if ($rule->covers($item)) {
                return $rule;
            }
        }

        return null;
    }

    /** @return array<string, array<string, Item>> by kind and path */
    private static function byKind(Inventory $inventory): array
    {
        $found = array_fill_keys(array_keys($inventory->counts()), []);
        foreach ($inventory->items as $item) {
            $found[$item->kind][$item->path] = $item;
        }

        return $found;
    }
}
