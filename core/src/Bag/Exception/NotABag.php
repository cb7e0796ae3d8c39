<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Exception;

use JadeStep\Core\Text;

final class NotABag extends \RuntimeException implements BagException
{
    public static function folder(string $name): self
    {
        return new self(
            '"'
                .Text::safe($name, 120)
                .'" is not a bag: it has no bagit.txt. Name the folder that holds bagit.txt and data/.',
        );
    }

    public static function withoutPayload(string $name): self
    {
        return new self(
            '"'
                .Text::safe($name, 120)
                .'" is not a bag: it has no data/. Name the folder that holds bagit.txt and data/.',
        );
    }

    public static function without(string $file): self
    {
        return new self("The bag has no {$file} that could be read, so nothing lists what it holds.");
    }

    public static function undescribed(string $label): self
    {
        return new self(
            "The bag does not say its {$label}: bag-info.txt has no such line, or one that cannot be read, so "
                .'this is no backup of a device.',
        );
    }
}
