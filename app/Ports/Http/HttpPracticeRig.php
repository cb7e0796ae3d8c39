<?php

declare(strict_types=1);

namespace App\Ports\Http;

use App\Ports\Exception\Declined;
use App\Ports\PracticeRig;
use Illuminate\Http\Client\Factory;
use JadeStep\Core\Exchange\Fields;

final readonly class HttpPracticeRig implements PracticeRig
{
    public function __construct(private Factory $http)
    {
    }

    public function shown(string $address): ?Fields
    {
        try {
            return Fields::of($this->client($address)->get('/practice')->json());
        } catch (Declined) {
            return null;
        }
    }

    public function hand(string $address, string $method, string $path, Fields $body): Fields
    {
        return Fields::of($this->client($address)->send($method, "/practice{$path}", $body)->json() ?? []);
    }

    private function client(string $address): JsonClient
    {
        return new JsonClient($this->http, $address, 'The rig', AllowedAddresses::ofPractice());
    }
}
