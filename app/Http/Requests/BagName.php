<?php

declare(strict_types=1);

namespace App\Http\Requests;

/** What people may call a backup: one line. */
final class BagName
{
    public const RULES = ['string', 'max:120', 'not_regex:/[\x00-\x1f\x7f]/'];

    /** @return string|null null where it says nothing */
    public static function tidy(?string $name): ?string
    {
        $name = trim($name ?? '');

        return $name === '' ? null : $name;
    }
}
