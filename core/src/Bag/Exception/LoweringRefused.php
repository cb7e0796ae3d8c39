<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Exception;

use JadeStep\Core\Text;
use JadeStep\Core\Version\Version;

final class LoweringRefused extends \RuntimeException implements BagException
{
    public static function notLower(Version $declared, Version $to): self
    {
        return new self("The bag declares {$declared}, which is not above {$to}: it can be put back as it is.");
    }

    public static function targetExists(string $name): self
    {
        return new self(
            '"'.Text::safe($name, 120).'" is there already, and nothing is ever overwritten: name a new folder.',
        );
    }

    public static function nested(string $name): self
    {
        return new self(
            '"'.Text::safe($name, 120).'" would lie in the bag itself: name a folder outside of it.',
        );
    }

    /** @param  string  $name  of the folder in which the copy would grow */
    public static function inUse(string $name): self
    {
        return new self(
            '"'.Text::safe($name, 120).'" is there, and was not begun by this work: name another folder, or see what '
                .'it is.',
        );
    }

    public static function damaged(string $fault): self
    {
        return new self('The bag is damaged, so no copy is made of it: '.Text::safe($fault).'.');
    }
}
