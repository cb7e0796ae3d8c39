<?php

declare(strict_types=1);

namespace App\Reading;

use Illuminate\Contracts\Cache\Repository;
use JadeStep\Core\Exchange\Fields;

/**
 * Answers that cost computing, kept with the version of what they were made from. Who reads gets the kept one, and one
 * is made anew when that version has changed.
 */
final readonly class KeptAnswers
{
    private const DAYS = 7;

    public function __construct(private Repository $cache)
    {
    }

    /**
     * @param  string  $name  of the answer
     * @param  string  $version  of everything that it is made from
     * @param  callable(): mixed  $make  something that can be written as JSON
     * @return mixed the answer, as it is read from JSON
     */
    public function of(string $name, string $version, callable $make): mixed
    {
        return $this->ofMany([$name => $version], static fn (): array => [$name => $make()])[$name];
    }

    /**
     * Many at once, each with a version of its own.
     *
     * @param  array<string, string>  $versions  by the names of the answers
     * @param  callable(list<string>): array<string, mixed>  $make  answers by name, for the names that it is given
     * @return array<string, mixed> the answers as they are read from JSON, in the order of their names
     */
    public function ofMany(array $versions, callable $make): array
    {
        $kept = [];
        foreach ($this->cache->getMultiple(array_map(self::key(...), array_keys($versions)), []) as $key => $answer) {
            $kept[$key] = Fields::of($answer);
        }
        $texts = [];
        foreach ($versions as $name => $version) {
            $answer = $kept[self::key($name)] ?? null;
            if ($answer?->maybeString('version') === $version) {
                $texts[$name] = $answer->string('text');
            }
        }
        $old = array_keys(array_diff_key($versions, $texts));
        if ($old !== []) {
            $made = array_map(
                static fn (mixed $answer): string => json_encode($answer, JSON_THROW_ON_ERROR),
                array_intersect_key($make($old), $versions),
            );
            $this->keep($made, $versions);
            $texts += $made;
        }

        return array_map(
            static fn (string $text): mixed => json_decode($text, false, 512, JSON_THROW_ON_ERROR),
            array_replace(array_intersect_key($versions, $texts), $texts),
        );
    }

    /**
     * @param  array<string, string>  $texts
     * @param  array<string, string>  $versions
     */
    private function keep(array $texts, array $versions): void
    {
        $kept = [];
        foreach ($texts as $name => $text) {
            $kept[self::key($name)] = ['version' => $versions[$name], 'text' => $text];
        }
        $this->cache->setMultiple($kept, self::DAYS * 86_400);
    }

    private static function key(string $name): string
    {
        return "answer {$name}";
    }
}
