<?php

declare(strict_types=1);

namespace App\Ports;

use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use JadeStep\Core\Permit\PermitRequest;

/** What one vendor offers over the network. */
interface VendorService
{
    /**
     * @return string the public keys that the vendor shows, a JWK Set (RFC 7517); showing a key does not make it
     *   accepted
     *
     * @throws LinkLost|Declined
     */
    public function shownKeys(): string;

    /**
     * @return string the catalogue as a compact JWS, not yet checked
     *
     * @throws LinkLost|Declined
     */
    public function signedCatalogue(): string;

    /**
     * @return resource the package from an offset on
     *
     * @throws LinkLost|Declined
     */
    public function openPackage(string $url, int $offset);

    /**
     * @return string the permit as a compact JWS, not yet checked
     *
     * @throws LinkLost|Declined with the vendor's reason code
     */
    public function permit(PermitRequest $request): string;
}
