<?php

declare(strict_types=1);

namespace App\Almanac;

use JadeStep\Core\Time\Rfc3339;

/** A catalogue that is signed and well formed, and yet not the word that was asked for. */
final class OtherWord extends \RuntimeException
{
    private function __construct(public readonly string $reason, string $words)
    {
        parent::__construct($words);
    }

    public static function ofAnother(string $vendor, string $asked): self
    {
        return new self(
            'other-vendor',
            "The service at this address speaks for {$vendor}, not for {$asked}. Correct the address in Settings.",
        );
    }

    public static function older(\DateTimeImmutable $issuedAt, \DateTimeImmutable $held): self
    {
        $time = Rfc3339::format(...);

        return new self(
            'older-catalogue',
            "The vendor's service gave a catalogue of {$time($issuedAt)}, older "
                ."than the held one of {$time($held)}. The held one stays.",
        );
    }

    public static function withoutAddress(string $vendor): self
    {
        return new self('no-address', "{$vendor} has no address. Its word comes from files only.");
    }
}
