<?php

declare(strict_types=1);

namespace App\Reading\Find;

/** How well a text answers what was typed: the whole of it, its beginning, the beginning of a word, or anywhere. */
final readonly class Rank
{
    private const WHOLE = 4;

    private const BEGINNING = 3;

    private const WORD = 2;

    private const ANYWHERE = 1;

    /** @param  list<string>  $words  in lower case */
    private function __construct(private array $words)
    {
    }

    public static function by(string $typed): self
    {
        $words = preg_split('/\s+/u', mb_strtolower(trim($typed)), -1, PREG_SPLIT_NO_EMPTY);

        return new self(array_slice($words === false ? [] : $words, 0, 8));
    }

    public function isEmpty(): bool
    {
        return $this->words === [];
    }

    /** @return list<string> */
    public function words(): array
    {
        return $this->words;
    }

    /** @return int 0 where a word does not occur; more is better */
    public function of(Found $found): int
    {
        $sum = 0;
        foreach ($this->words as $word) {
            $inTitle = 2 * self::word($word, $found->title);
            $best = $inTitle === 0 ? self::word($word, $found->about) : $inTitle;
            if ($best === 0) {
                return 0;
            }
            $sum += $best;
        }

        return $sum;
    }

    private static function word(string $word, string $text): int
    {
        $text = mb_strtolower($text);

        return match (true) {
            $text === $word => self::WHOLE,
            str_starts_with($text, $word) => self::BEGINNING,
            preg_match('/(?<![\p{L}\p{N}])'.preg_quote($word, '/').'/u', $text) === 1 => self::WORD,
            str_contains($text, $word) => self::ANYWHERE,
            default => 0,
        };
    }
}
