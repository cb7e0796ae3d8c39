<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

use JadeStep\Core\Device\Exception\UnreadableImei;

/**
 * An equipment identity: eight digits of type allocation code, six of serial number, one check digit (3GPP TS 23.003
 * section 6.2; the digit after its annex B, which is the Luhn formula of ISO/IEC 7812-1).
 */
final readonly class Imei implements \Stringable
{
    private function __construct(private string $digits)
    {
    }

    /**
     * @throws UnreadableImei where it is not 15 digits (blanks, dashes and slashes aside) or the check digit does not
     * fit
     */
    public static function parse(string $text): self
    {
        $digits = (string) preg_replace('#[\s/-]#', '', substr($text, 0, 60));
        if ($digits === '' || preg_match('/\A\d+\z/', $digits) !== 1) {
            throw UnreadableImei::notDigits($text);
        }
        if (strlen($digits) !== 15) {
            throw UnreadableImei::length(strlen($digits));
        }
        if (self::checkDigit(substr($digits, 0, 14)) !== (int) $digits[14]) {
            throw UnreadableImei::checkDigit($digits);
        }

        return new self($digits);
    }

    /** The type allocation code, which names the model. */
    public function tac(): string
    {
        return substr($this->digits, 0, 8);
    }

    public function __toString(): string
    {
        return $this->digits;
    }

    /** @param  string  $body  14 digits */
    public static function checkDigit(string $body): int
    {
        $sum = 0;
        foreach (str_split($body) as $i => $digit) {
            $value = (int) $digit * ($i % 2 === 0 ? 1 : 2);
            $sum += intdiv($value, 10) + $value % 10;
        }

        return (10 - $sum % 10) % 10;
    }
}
