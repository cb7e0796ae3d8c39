<?php

declare(strict_types=1);

namespace App\Ports;

/** Where another place for bags is, and how it is opened. */
final readonly class PlaceAddress
{
    /**
     * @param  string  $folder  in full, here or on the server
     * @param  string|null  $host  null for a folder of this machine
     * @param  string|null  $hostKey  as the host has to show it: `SHA256:` and RFC 4648 base64 without padding
     * @param  string  $secret  password or private key; empty for a folder
     */
    public function __construct(
        public string $folder,
        public ?string $host,
        public int $port,
        public string $user,
        public ?string $hostKey,
        #[\SensitiveParameter]
        public string $secret,
    ) {
    }
}
