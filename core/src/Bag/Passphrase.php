<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\WeakPassphrase;
use JadeStep\Core\Bag\Internal\Listing;

/** What opens an encrypted bag. It shows itself to nobody but the program that encrypts. */
final readonly class Passphrase
{
    public const SHORTEST = 12;

    private const LONGEST = 200;

    /** As much as GnuPG takes over a file descriptor with room to spare. */
    private const LONGEST_EVER = 1000;

    private const WORDS = 6;

    private function __construct(#[\SensitiveParameter] private string $text)
    {
    }

    /** @throws WeakPassphrase where it has fewer than 12 characters, or some that cannot be typed */
    public static function parse(#[\SensitiveParameter] string $text): self
    {
        return match (true) {
            ! mb_check_encoding($text, 'UTF-8'),
            preg_match('/[\x00-\x1F\x7F]/', $text) === 1 => throw WeakPassphrase::characters(),
            mb_strlen($text) < self::SHORTEST => throw WeakPassphrase::short(self::SHORTEST),
            strlen($text) > self::LONGEST => throw WeakPassphrase::long(self::LONGEST),
            default => new self($text),
        };
    }

    /**
     * Of a bag that is closed already: whatever it was closed with, however short.
     *
     * @throws WeakPassphrase where no bag can have been closed with it
     */
    public static function existing(#[\SensitiveParameter] string $text): self
    {
        return match (true) {
            $text === '', preg_match('/[\x00\r\n]/', $text) === 1 => throw WeakPassphrase::characters(),
            strlen($text) > self::LONGEST_EVER => throw WeakPassphrase::long(self::LONGEST_EVER),
            default => new self($text),
        };
    }

    /** Six words of BIP-39's English list, without two that are trade names, so of 2046: 66 bits. */
    public static function offered(\Random\Randomizer $random): self
    {
        $words = Listing::lines(dirname(__DIR__, 2).'/resources/words.txt');
        $words !== [] || throw new \LogicException('The words that are offered are missing.');
        $chosen = array_map(
            static fn (): string => $words[$random->getInt(0, count($words) - 1)],
            range(1, self::WORDS),
        );

        return new self(implode(' ', $chosen));
    }

    /**
     * Only for handing it on: to the program that encrypts, to the person who is offered it, or into a locked place.
     */
    public function reveal(): string
    {
        return $this->text;
    }

    /** @return array<string, string> */
    public function __debugInfo(): array
    {
        return ['text' => '(hidden)'];
    }

    /** @return never */
    public function __serialize(): array
    {
        throw new \LogicException('A passphrase is not stored in the clear.');
    }
}
