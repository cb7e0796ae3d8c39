<?php

declare(strict_types=1);

namespace App\Ports\Fake;

use App\Ports\Exception\Declined;
use App\Ports\VendorService;
use JadeStep\Core\Permit\PermitRequest;

/** A vendor in memory: says what it was given to say. */
final class FakeVendorService implements VendorService
{
    /** @var array<string, string> bytes by address */
    private array $packages = [];

    /**
     * @param  string  $keys  a JWK Set
     * @param  string  $catalogue  a compact JWS
     * @param  (\Closure(PermitRequest): string)|null  $permits  null where it gives none
     */
    public function __construct(
        private readonly string $keys = '',
        private readonly string $catalogue = '',
        private readonly ?\Closure $permits = null,
    ) {
    }

    public function putPackage(string $url, string $bytes): void
    {
        $this->packages[$url] = $bytes;
    }

    public function shownKeys(): string
    {
        return $this->keys;
    }

    public function signedCatalogue(): string
    {
        return $this->catalogue;
    }

    public function openPackage(string $url, int $offset)
    {
        $bytes = $this->packages[$url] ?? throw new Declined('no-such-package', 'There is no such package.', 404);
        $stream = fopen('php://memory', 'r+b');
        $stream !== false || throw new \RuntimeException('No memory.');
        fwrite($stream, $bytes);
        fseek($stream, $offset);

        return $stream;
    }

    public function permit(PermitRequest $request): string
    {
        return $this->permits === null
            ? throw new Declined('window-closed', 'This build is not signed any more.', 409)
            : ($this->permits)($request);
    }
}
