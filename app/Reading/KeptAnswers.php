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
        $kept = Fields::of($this->cache->get("answer {$name}") ?? []);
        if ($kept->maybeString('version') !== $version) {
            $kept = Fields::of(['version' => $version, 'text' => json_encode($make(), JSON_THROW_ON_ERROR)]);
            $this->cache->put("answer {$name}", $kept->all(), self::DAYS * 86_400);
        }

        return json_decode($kept->string('text'), false, 512, JSON_THROW_ON_ERROR);
    }
}
