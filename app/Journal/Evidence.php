<?php

declare(strict_types=1);

namespace App\Journal;

use JadeStep\Core\Exchange\Fields;

/** What shows an act, by name, as the Journal keeps it: never a secret, nor an owner's content. */
final readonly class Evidence
{
    private const LONGEST = 20_000;

    /** @param  array<string, mixed>  $facts */
    public function __construct(public array $facts = [])
    {
    }

    public static function ofFields(Fields $fields): self
    {
        return new self(array_combine($fields->keys(), array_values($fields->all())));
    }

    public function and(string $name, mixed $fact): self
    {
        return new self([...$this->facts, $name => $fact]);
    }

    /** Where it is too long for a line, only what was there is named. */
    public function cut(): self
    {
        $tooLong = strlen((string) json_encode($this->facts)) > self::LONGEST;

        return $tooLong ? new self(['cut' => true, 'fields' => array_keys($this->facts)]) : $this;
    }
}
