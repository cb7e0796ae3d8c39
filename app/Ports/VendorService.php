<?php

declare(strict_types=1);

namespace App\Ports;

use App\Ports\Exception\LinkLost;
use App\Ports\Exception\Refused;
use JadeStep\Core\Permit\KeySet;
use JadeStep\Core\Permit\PermitRequest;

/** What a vendor offers over the network. */
interface VendorService
{
    /**
     * The vendor's public keys, as this bench holds them: read once, then kept, so that a swapped key is not taken
     * unseen.
     *
     * @throws LinkLost
     */
    public function keys(): KeySet;

    /**
     * @return string the catalogue as a compact JWS, not yet checked
     *
     * @throws LinkLost|Refused
     */
    public function signedCatalogue(): string;

    /**
     * @return resource the package from an offset on
     *
     * @throws LinkLost|Refused
     */
    public function openPackage(string $url, int $offset);

    /**
     * @return string the permit as a compact JWS, not yet checked
     *
     * @throws LinkLost|Refused with the vendor's reason code
     */
    public function permit(PermitRequest $request): string;
}
