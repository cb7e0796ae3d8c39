<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Version\Version;

/** What people call a backup: one line. A lowered copy and its original are never called the same. */
final class BagName
{
    public const LONGEST = 120;

    /** Whether two are the same to whoever reads them. */
    public static function areAlike(string $one, string $other): bool
    {
        return mb_strtolower(trim($one)) === mb_strtolower(trim($other));
    }

    /** What a lowered copy is called until somebody names it. */
    public static function ofCopy(string $original, Version $installed): string
    {
        return mb_substr($original, 0, self::LONGEST).", lowered to {$installed->label()}";
    }
}
