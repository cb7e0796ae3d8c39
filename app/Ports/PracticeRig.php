<?php

declare(strict_types=1);

namespace App\Ports;

use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use JadeStep\Core\Exchange\Fields;

/**
 * The practice hands of stand-ins, which real links and vendors do not have. What they take and tell is passed
 * through.
 */
interface PracticeRig
{
    /**
     * @return Fields|null null where there are no practice hands at this address
     *
     * @throws LinkLost
     */
    public function shown(string $address): ?Fields;

    /** @throws LinkLost|Declined */
    public function hand(string $address, string $method, string $path, Fields $body): Fields;
}
