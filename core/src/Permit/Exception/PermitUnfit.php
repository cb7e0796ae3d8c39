<?php

declare(strict_types=1);

namespace JadeStep\Core\Permit\Exception;

/** A permit that is signed, but is not for this install. */
final class PermitUnfit extends \RuntimeException implements PermitException
{
    public static function field(string $field): self
    {
        return new self("The permit's {$field} is not that of this install. Ask for a new permit.");
    }

    public static function expired(): self
    {
        return new self('The permit has run out. Ask for a new permit.');
    }
}
