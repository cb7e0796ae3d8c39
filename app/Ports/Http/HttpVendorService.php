<?php

declare(strict_types=1);

namespace App\Ports\Http;

use App\Ports\Exception\LinkLost;
use App\Ports\VendorService;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Permit\PermitRequest;

/** A vendor's service over HTTP. */
final readonly class HttpVendorService implements VendorService
{
    public function __construct(private JsonClient $client, private string $address)
    {
    }

    public function shownKeys(): string
    {
        return $this->client->get('/jwks.json')->body();
    }

    public function signedCatalogue(): string
    {
        return $this->client->get('/catalogue')->body();
    }

    public function openPackage(string $url, int $offset)
    {
        if (! str_starts_with($url, "{$this->address}/")) {
            throw LinkLost::to('The address of the package, which is not the vendor\'s,');
        }
        [$stream, $response] = $this->client->stream($url, $offset === 0 ? [] : ['Range' => "bytes={$offset}-"]);
        if ($offset > 0 && $response->status() !== 206) {
            throw LinkLost::to('The vendor\'s service, asked for the rest of the package,');
        }

        return $stream;
    }

    public function permit(PermitRequest $request): string
    {
        $told = $this->client->post('/permits', [
            'deviceSerial' => $request->deviceSerial, 'hardwareId' => $request->hardwareId, 'build' => $request->build,
            'packageSha256' => $request->packageSha256, 'nonce' => $request->nonce,
        ])->json();

        return (string) Fields::of(is_array($told) ? $told : [])->maybeString('permit');
    }
}
