<?php

declare(strict_types=1);

namespace App\People;

/** What a lead hands to somebody whose password is to be set anew. */
final readonly class OneTimeLink
{
    public function __construct(#[\SensitiveParameter] public string $token, public \DateTimeImmutable $until)
    {
    }
}
