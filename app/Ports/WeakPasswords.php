<?php

declare(strict_types=1);

namespace App\Ports;

/** Knows passwords that are guessed early. */
interface WeakPasswords
{
    /** @return string|null why it is easily guessed, in words; null where it is not known to be */
    public function why(#[\SensitiveParameter] string $password): ?string;
}
