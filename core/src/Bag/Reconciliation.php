<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** Matches what was backed up with what the device lists now: by kind and path, then by digest. */
final class Reconciliation
{
    /** @param  list<RewriteRule>  $rules */
    public static function compare(Inventory $before, Inventory $after, array $rules): Comparison
    {
        $had = $before->items;
        $has = $after->items;
        $byRule = self::byRule($had, $has, $rules);
        $isNamed = "SELECT 1 FROM {$byRule->table} c WHERE c.name = i.name";
        $isSame = static fn (Items $there): string => "SELECT 1 FROM {$there->table} o "
            .'WHERE o.name = i.name AND o.digest = i.digest';
        $open = Items::selected("{$had->table} i WHERE NOT EXISTS ({$isSame($has)}) AND NOT EXISTS ({$isNamed})");
        $over = Items::selected("{$has->table} i WHERE NOT EXISTS ({$isSame($had)}) AND NOT EXISTS ({$isNamed})");
        $missing = self::unmatched($open, $over);
        $extra = self::unmatched($over, $open);
        $counts = $had->counts();
        $kinds = array_unique([
            ...array_keys($before->counts()), ...array_keys($counts),
            ...array_keys($after->counts()), ...array_keys($has->counts()),
        ]);

        return new Comparison(array_map(
            static function (string $kind) use ($counts, $byRule, $rules, $missing, $extra): KindComparison {
                $changed = self::rewritten($byRule, $kind, $rules);
                $many = $counts[$kind] ?? 0;
                $isOfKind = "WHERE i.kind = x'".bin2hex($kind)."'";
                $lacks = Items::selected("{$missing->table} i {$isOfKind}");
                $same = $many - count($changed) - count($lacks);

                return new KindComparison(
                    $kind,
                    $many,
                    $same,
                    $changed,
                    $lacks,
                    Items::selected("{$extra->table} i {$isOfKind}"),
                );
            },
            array_values($kinds),
        ));
    }

    /**
     * Items that are there with another content, as some rule says.
     *
     * @param  list<RewriteRule>  $rules
     */
    private static function byRule(Items $had, Items $has, array $rules): Items
    {
        $differ = Items::selected(
            "{$had->table} i JOIN {$has->table} o ON o.name = i.name AND o.digest <> i.digest",
        );
        $named = new Items;
        foreach ($differ as $item) {
            self::ruleFor($item, $rules) === null || $named->add($item);
        }

        return $named;
    }

    /**
     * Those whose content the others do not have as often, wherever it is there: the later ones of each content.
     */
    private static function unmatched(Items $these, Items $those): Items
    {
        $counted = '(SELECT *, ROW_NUMBER() OVER (PARTITION BY kind, digest ORDER BY id) AS nth '
            ."FROM {$these->table}) i";
        $there = "(SELECT kind, digest, COUNT(*) AS many FROM {$those->table} GROUP BY kind, digest) t";

        return Items::selected(
            "{$counted} LEFT JOIN {$there} ON t.kind = i.kind AND t.digest = i.digest "
                .'WHERE i.nth > COALESCE(t.many, 0)',
        );
    }

    /**
     * @param  list<RewriteRule>  $rules
     * @return list<Rewritten>
     */
    private static function rewritten(Items $byRule, string $kind, array $rules): array
    {
        $changed = [];
        foreach ($byRule->ofKind($kind) as $item) {
            $rule = self::ruleFor($item, $rules) ?? throw new \LogicException('A rule named it a moment ago.');
            $changed[] = new Rewritten($item->path, $rule);
        }

        return $changed;
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
}
