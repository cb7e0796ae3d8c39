<?php

declare(strict_types=1);

namespace JadeStep\Core\Permit\Exception;

use JadeStep\Core\Text;

/** A signed text whose signature, key or form does not hold. */
final class Untrusted extends \RuntimeException implements PermitException
{
    private function __construct(
        string $words,
        ?\Throwable $previous = null,
        public readonly bool $keyIsUnknown = false,
    ) {
        parent::__construct($words, 0, $previous);
    }

    public static function unknownKey(string $kid): self
    {
        return new self(
            'It is signed with the key '
                .Text::safe($kid, 60)
                .', which nobody has accepted here. Nothing of it was taken.',
            null,
            true,
        );
    }

    public static function noKeys(): self
    {
        return new self('No key of this vendor was accepted yet, so nothing of it can be checked.', null, true);
    }

    public static function signature(string $why, ?\Throwable $previous = null): self
    {
        return new self('The signature does not hold: '.Text::safe($why, 160).'. Nothing of it was taken.', $previous);
    }

    /** What is not read at all, whoever signed it. */
    public static function form(string $why): self
    {
        return new self(
            'It is no signed text that can be read here: '.Text::safe($why, 160).'. Nothing of it was taken.',
        );
    }

    public static function keys(string $why, ?\Throwable $previous = null): self
    {
        return new self('The vendor\'s key set cannot be used: '.Text::safe($why, 160).'.', $previous);
    }
}
