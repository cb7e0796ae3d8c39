<?php

declare(strict_types=1);

namespace App\Ports\Http;

use App\Ports\VendorService;
use App\Ports\VendorServices;
use Illuminate\Http\Client\Factory;

final readonly class HttpVendorServices implements VendorServices
{
    public function __construct(private Factory $http)
    {
    }

    public function at(string $address): VendorService
    {
        $address = rtrim($address, '/');

        return new HttpVendorService(
            new JsonClient($this->http, $address, 'The vendor\'s service', AllowedAddresses::ofVendors()),
            $address,
        );
    }
}
