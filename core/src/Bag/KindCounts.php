<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** Items by kind, as a bag or a device counts them. */
final class KindCounts
{
    /**
     * Whether both count the same, in whatever order.
     *
     * @param  array<string, int>  $one
     * @param  array<string, int>  $other
     */
    public static function areEqual(array $one, array $other): bool
    {
        return array_diff_assoc($one, $other) === [] && array_diff_assoc($other, $one) === [];
    }
}
