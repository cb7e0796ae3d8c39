<?php

declare(strict_types=1);

namespace App\Benches;

use App\Ports\PortLabel;

/** A bench as a lead enters it. */
final readonly class BenchEntry
{
    /** @param  list<PortLabel>  $ports */
    public function __construct(public string $name, public ?string $linkAddress, public array $ports)
    {
    }
}
