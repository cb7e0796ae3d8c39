<?php

declare(strict_types=1);

namespace App\Ports\Fake;

use App\Ports\Exception\LinkLost;
use App\Ports\VendorService;
use App\Ports\VendorServices;

/** Vendors in memory, by the addresses that a test gives them. */
final class FakeVendorServices implements VendorServices
{
    /** @var array<string, VendorService> */
    private array $services = [];

    public function put(string $address, VendorService $service): void
    {
        $this->services[$address] = $service;
    }

    public function at(string $address): VendorService
    {
        return $this->services[$address] ?? throw LinkLost::to("The vendor's service at {$address}");
    }
}
