<?php

declare(strict_types=1);

namespace JadeStep\Core\Permit\Exception;

use JadeStep\Core\Text;

/** A signed text whose signature, key or form does not hold. */
final class Untrusted extends \RuntimeException implements PermitException
{
    public static function signature(string $why, ?\Throwable $previous = null): self
    {
        return new self('The signature does not hold: '.Text::safe($why, 160).'. Nothing of it was taken.', 0, $previous);
    }

    public static function keys(string $why, ?\Throwable $previous = null): self
    {
        return new self('The vendor\'s key set cannot be used: '.Text::safe($why, 160).'.', 0, $previous);
    }
}
