<?php

declare(strict_types=1);

namespace JadeStep\Core\Proof;

/** How much of a kind is there afterwards. */
enum Happened: string
{
    case All = 'all';
    case Some = 'some';
    case Nothing = 'nothing';

    public static function of(int $before, int $there): self
    {
        return match (true) {
            $there >= $before => self::All,
            $there > 0 => self::Some,
            default => self::Nothing,
        };
    }
}
