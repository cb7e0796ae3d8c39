<?php

declare(strict_types=1);

namespace JadeStep\Core\Permit;

/** The install that a permit is asked for. */
final readonly class PermitRequest
{
    public function __construct(
        public string $deviceSerial,
        public string $hardwareId,
        public string $build,
        public string $packageSha256,
        public string $nonce,
    ) {
    }
}
