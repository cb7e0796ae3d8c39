<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Exception;

use JadeStep\Core\Text;

final class WriteFailed extends \RuntimeException implements BagException
{
    public static function at(string $path, string $why = 'the disk may be full or the folder not writable'): self
    {
        return new self('Writing "'.Text::safe($path, 120).'" failed: '.Text::safe($why, 120).'.');
    }
}
