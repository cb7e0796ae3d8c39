<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

/** What a table of builds says. It may be used only where it has no fault. */
final readonly class ReadBuilds
{
    /**
     * @param  array<string, mixed>  $document  a catalogue document
     * @param  list<array{line: int, message: string}>  $faults
     */
    public function __construct(public array $document, public array $faults)
    {
    }
}
