<?php

declare(strict_types=1);

namespace App\Ports\Fake;

use App\Ports\LinkAddress;
use App\Ports\LinkAddresses;

/** Benches that nobody has set up in a database. */
final readonly class FakeLinkAddresses implements LinkAddresses
{
    /** @param  array<int, LinkAddress>  $addresses  by bench */
    public function __construct(private array $addresses)
    {
    }

    public function all(): array
    {
        return $this->addresses;
    }
}
