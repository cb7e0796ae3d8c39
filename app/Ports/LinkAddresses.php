<?php

declare(strict_types=1);

namespace App\Ports;

/** Where the device links of the benches are. */
interface LinkAddresses
{
    /** @return array<int, LinkAddress> by bench */
    public function all(): array;
}
