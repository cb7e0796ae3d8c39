<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Device\Identity;

/** One device of a batch, with everything that is wrong with its line. */
final readonly class IntakeLine
{
    /**
     * @param  array<string, string>  $cells  by column, empty where nothing was said
     * @param  array<string, int|string>|null  $goal  as in a situation document
     * @param  Identity|null  $identity  null where the line is too bad to look the model up
     * @param  list<string>  $faults
     */
    public function __construct(public int $line, public array $cells, public ?array $goal, public ?Identity $identity, public array $faults)
    {
    }

    public function withFault(string $fault): self
    {
        return new self($this->line, $this->cells, $this->goal, $this->identity, [...$this->faults, $fault]);
    }

    public function isGood(): bool
    {
        return $this->faults === [];
    }
}
