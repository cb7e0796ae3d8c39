<?php

declare(strict_types=1);

namespace App\Ports;

use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;

/** The practice hands of stand-ins, which real links and vendors do not have. What they take and tell is passed through. */
interface PracticeRig
{
    /**
     * @return array<string, mixed>|null null where there are no practice hands at this address
     *
     * @throws LinkLost
     */
    public function shown(string $address): ?array;

    /**
     * @param  array<string, mixed>  $body
     * @return array<string, mixed>
     *
     * @throws LinkLost|Declined
     */
    public function hand(string $address, string $method, string $path, array $body): array;
}
