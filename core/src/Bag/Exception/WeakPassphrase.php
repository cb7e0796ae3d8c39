<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Exception;

final class WeakPassphrase extends \InvalidArgumentException implements BagException
{
    public static function short(int $shortest): self
    {
        return new self("A passphrase has at least {$shortest} characters; or take the six words that are offered.");
    }

    public static function long(int $longest): self
    {
        return new self("A passphrase has at most {$longest} bytes.");
    }

    public static function characters(): self
    {
        return new self('A passphrase is one line of text without control characters.');
    }
}
