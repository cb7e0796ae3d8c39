<?php

declare(strict_types=1);

namespace JadeStep\Core\Access;

/**
 * Time-based one-time codes as RFC 6238 has them: HMAC-SHA-1 over the number of 30-second steps since 1970, cut to six
 * digits (RFC 4226, section 5.3). The secret is kept in base 32 (RFC 4648), as programs that make the codes take it.
 */
final readonly class TimeCode
{
    private const STEP_SECONDS = 30;

    private const DIGITS = 6;

    /** How many steps a device's clock may be off, either way (RFC 6238, section 5.2). */
    private const STEPS_OFF = 1;

    /** RFC 4226, section 4, R6: 160 bits are recommended. */
    private const SECRET_BYTES = 20;

    private const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';

    private function __construct(#[\SensitiveParameter] private string $key)
    {
    }

    public static function fresh(): self
    {
        return new self(random_bytes(self::SECRET_BYTES));
    }

    /**
     * @param  string  $base32  blanks and small letters count as a person types them
     *
     * @throws \InvalidArgumentException where it is no base 32
     */
    public static function ofSecret(#[\SensitiveParameter] string $base32): self
    {
        $bits = '';
        foreach (str_split(strtoupper((string) preg_replace('/[\s=]/', '', $base32))) as $letter) {
            $value = strpos(self::ALPHABET, $letter);
            $value === false && throw new \InvalidArgumentException('A secret is written in the letters of base 32.');
            $bits .= sprintf('%05b', $value);
        }
        $key = '';
        foreach (str_split($bits, 8) as $byte) {
            $key .= strlen($byte) === 8 ? chr((int) bindec($byte)) : '';
        }

        return new self($key);
    }

    /** In base 32. */
    public function secret(): string
    {
        $bits = implode(
            '',
            array_map(static fn (string $byte): string => sprintf('%08b', ord($byte)), str_split($this->key)),
        );
        $letters = array_map(
            static fn (string $five): string => self::ALPHABET[(int) bindec(str_pad($five, 5, '0'))],
            str_split($bits, 5),
        );

        return implode('', $letters);
    }

    /** What a program that makes codes is told, as a link or a picture of it. */
    public function address(string $issuer, string $account): string
    {
        $label = rawurlencode($issuer).':'.rawurlencode($account);

        return "otpauth://totp/{$label}?secret={$this->secret()}&issuer=".rawurlencode($issuer);
    }

    /** @param  int  $step  number of 30-second steps since 1970 */
    public function at(int $step, int $digits = self::DIGITS): string
    {
        $mac = hash_hmac('sha1', pack('J', $step), $this->key, true);
        $offset = ord($mac[19]) & 0xF;
        $number = (self::number(substr($mac, $offset, 4)) & 0x7FFF_FFFF) % 10 ** $digits;

        return str_pad((string) $number, $digits, '0', STR_PAD_LEFT);
    }

    public static function stepOf(\DateTimeImmutable $when): int
    {
        return intdiv($when->getTimestamp(), self::STEP_SECONDS);
    }

    /**
     * Whether a code is right now. Each is taken once: what was used, and what is older, is refused.
     *
     * @param  int  $used  the step of the last code that was taken
     * @return int|null the step of this one, to be remembered; null where it is not right
     */
    public function accepts(string $code, \DateTimeImmutable $now, int $used): ?int
    {
        $given = (string) preg_replace('/\s/', '', $code);
        $here = self::stepOf($now);
        for ($step = $here - self::STEPS_OFF; $step <= $here + self::STEPS_OFF; $step++) {
            if ($step > $used && hash_equals($this->at($step), $given)) {
                return $step;
            }
        }

        return null;
    }

    private static function number(string $fourBytes): int
    {
        $number = 0;
        foreach (str_split($fourBytes) as $byte) {
            $number = $number << 8 | ord($byte);
        }

        return $number;
    }
}
