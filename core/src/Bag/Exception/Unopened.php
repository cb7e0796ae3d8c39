<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Exception;

use JadeStep\Core\Text;

/** An encrypted file that did not open, or did not open whole. */
final class Unopened extends \RuntimeException implements BagException
{
    private function __construct(string $words, public readonly bool $passphraseIsWrong)
    {
        parent::__construct($words);
    }

    public static function wrongPassphrase(): self
    {
        return new self(
            'The passphrase does not open this bag. Type it again; capital letters and blanks count.',
            true,
        );
    }

    public static function closedForKey(string $fingerprint): self
    {
        return new self(
            "This bag is closed for the key {$fingerprint}: only who has its secret part opens it, and not here.",
            false,
        );
    }

    public static function damaged(string $file, string $why): self
    {
        return new self(
            Text::safe($file, 120).' does not open whole: '.Text::safe($why, 160).'. Take another bag.',
            false,
        );
    }

    public static function withoutProgram(string $why): self
    {
        return new self(
            'GnuPG could not do its work: '
                .Text::safe($why, 160)
                .'. See that it is installed and that there is room on the disk.',
            false,
        );
    }
}
