<?php

declare(strict_types=1);

namespace App\Watch;

/** How one part of the instance is. */
final readonly class Component implements \JsonSerializable
{
    /** @param  string  $words  how it is, and where it is not good, what to do */
    public function __construct(public string $name, public HealthState $state, public string $words)
    {
    }

    public function jsonSerialize(): mixed
    {
        return ['name' => $this->name, 'state' => $this->state->value, 'words' => $this->words];
    }
}
