<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

/** What a table of builds says. It may be used only where it has no fault. */
final readonly class ReadBuilds
{
    /**
     * @param  Fields  $document  a catalogue document
     * @param  list<LineFault>  $faults
     */
    public function __construct(public Fields $document, public array $faults)
    {
    }
}
