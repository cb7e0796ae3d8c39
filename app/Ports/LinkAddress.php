<?php

declare(strict_types=1);

namespace App\Ports;

/** Where a bench's device link is, and what the bench is called. */
final readonly class LinkAddress
{
    public function __construct(public string $name, public string $address)
    {
    }
}
