<?php

declare(strict_types=1);

namespace App\Ports;

/** Where the device links of the benches are. */
interface LinkAddresses
{
    /** @return array<int, array{name: string, address: string}> by bench */
    public function all(): array;
}
