<?php

declare(strict_types=1);

namespace App\People;

use App\Ports\WeakPasswords;
use Illuminate\Contracts\Validation\ValidationRule;

/**
 * Which passwords are taken: long ones that are not guessed early (OWASP ASVS 4.0.3, 2.1.1, 2.1.2 and 2.1.7). There are
 * no rules for kinds of characters, and no password runs out.
 */
final readonly class GoodPassword implements ValidationRule
{
    public const SHORTEST = 12;

    public const LONGEST = 128;

    /** @param  list<string>  $known  what others know of the person: a name, an address */
    public function __construct(private WeakPasswords $weak, private array $known = [])
    {
    }

    public function validate(string $attribute, mixed $value, \Closure $fail): void
    {
        $problem = is_string($value) ? $this->problem($value) : 'A password is a text.';
        if ($problem !== null) {
            $fail($problem);
        }
    }

    /** @return string|null why it is not taken */
    public function problem(#[\SensitiveParameter] string $password): ?string
    {
        $length = mb_strlen($password);
        if ($length < self::SHORTEST || $length > self::LONGEST) {
            return 'A password has '.self::SHORTEST.' to '.self::LONGEST.' characters; several words are easily kept.';
        }
        if (preg_match('/[\p{Cc}]/u', $password) !== 0) {
            return 'A password has no line breaks or other control characters.';
        }
        foreach (['jade step', 'jadestep', ...$this->known] as $word) {
            if (mb_strlen($word) >= 4 && mb_stripos($password, $word) !== false) {
                return 'A password does not have the name, the address or the product\'s name in it.';
            }
        }
        if (preg_match('/\A(.{1,32}?)\1+\z/u', $password) === 1) {
            return 'This password is the same again and again. Take several words, for instance.';
        }
        // one word with digits and signs at its ends is that word
        $word = (string) preg_replace('/\A[^\p{L}]+|[^\p{L}]+\z/u', '', $password);
        $why = $this->weak->why($password) ?? ($word === '' ? null : $this->weak->why($word));

        return $why === null ? null : "This password is guessed easily: {$why}. Take several words, for instance.";
    }
}
