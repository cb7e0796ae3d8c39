<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Exception;

/** What was given is no public key that bags can be closed for. */
final class UnusableKey extends \InvalidArgumentException implements BagException
{
    public static function none(): self
    {
        return new self(
            'This is no public OpenPGP key in ASCII armour. Export one with its program, and give all of it.',
        );
    }

    public static function secret(): self
    {
        return new self('This is a secret key. Keep it to yourself, and give the public one only.');
    }

    public static function over(): self
    {
        return new self('This key has run out or was revoked. Give one that is good.');
    }

    public static function closesNothing(): self
    {
        return new self('This key has no part that encrypts. Give one that has.');
    }
}
