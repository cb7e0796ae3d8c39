<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Exception;

use JadeStep\Core\Text;

final class UnreadableInventory extends \RuntimeException implements BagException
{
    public static function line(int $line, string $why): self
    {
        return new self("Line {$line} of the inventory ".Text::safe($why, 160).'.');
    }
}
