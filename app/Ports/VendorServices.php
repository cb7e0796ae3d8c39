<?php

declare(strict_types=1);

namespace App\Ports;

/** Reaches the services of vendors by their addresses. */
interface VendorServices
{
    public function at(string $address): VendorService;
}
