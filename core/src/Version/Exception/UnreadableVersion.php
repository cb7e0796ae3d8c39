<?php

declare(strict_types=1);

namespace JadeStep\Core\Version\Exception;

use JadeStep\Core\Text;

final class UnreadableVersion extends \InvalidArgumentException implements VersionException
{
    public static function text(string $text): self
    {
        return new self(
            '"'
                .Text::safe($text, 60)
                .'" is not a version: write three numbers and, for a pre-release, a dash and its name, such as '
                    .'9.3.1 or 9.3.0-beta.2.',
        );
    }

    public static function range(string $text, string $why): self
    {
        return new self(
            '"'
                .Text::safe($text, 60)
                .'" is not a version range ('
                .Text::safe($why, 80)
                .'): write comparisons such as ">=8.0 <8.7".',
        );
    }
}
