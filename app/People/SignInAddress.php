<?php

declare(strict_types=1);

namespace App\People;

/** An address that somebody signs in with, in the one form that it is kept and looked up in. */
final class SignInAddress
{
    public static function normal(string $typed): string
    {
        $one = \Normalizer::normalize(trim($typed), \Normalizer::FORM_KC);

        return mb_strtolower($one === false ? $typed : $one);
    }
}
