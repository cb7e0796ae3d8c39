<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Exception;

/** Somebody else writes this bag at this moment. Whoever gets this leaves it to them, and asks again later. */
final class WorkFolderHeld extends \RuntimeException implements BagException
{
    public static function of(string $bag): self
    {
        return new self("The bag {$bag} is being written by another worker at this moment.");
    }
}
