<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Exception;

use JadeStep\Core\Text;

final class UnsafePath extends \InvalidArgumentException implements BagException
{
    public static function because(string $path, string $why): self
    {
        return new self(
            'The path "'
                .Text::safe($path, 120)
                .'" '
                .$why
                .'; a path inside a bag is relative and stays inside its folder.',
        );
    }
}
