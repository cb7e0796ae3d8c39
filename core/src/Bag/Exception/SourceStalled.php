<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Exception;

/** What was being copied does not come any more. */
final class SourceStalled extends \RuntimeException implements BagException
{
    public static function at(string $path): self
    {
        return new self("Nothing more of {$path} has come for a while.");
    }
}
