<?php

declare(strict_types=1);

namespace JadeStep\Core\Device\Exception;

use JadeStep\Core\Text;

final class UnreadableImei extends \InvalidArgumentException
{
    public static function notDigits(string $text): self
    {
        return new self(
            '"'
                .Text::safe($text, 40)
                .'" is not an IMEI: it has 15 digits, which the device shows in its settings, under its phone '
                    .'keypad code, or on its tray.',
        );
    }

    public static function length(int $digits): self
    {
        return new self("An IMEI has 15 digits; {$digits} were given.".match ($digits) {
            14 => ' The last one, the check digit, is missing.',
            16 => ' 16 digits with a software version at the end are an IMEISV: type the 15-digit IMEI.',
            default => ' Read it off the device again.',
        });
    }

    public static function checkDigit(string $digits): self
    {
        return new self(
            "The check digit of {$digits} does not fit, so at least one digit is wrong. Read it off the device again.",
        );
    }
}
