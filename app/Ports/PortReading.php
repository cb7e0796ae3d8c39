<?php

declare(strict_types=1);

namespace App\Ports;

/** One port of the bench and what is plugged in there; a device that restarts is not seen for a while. */
final readonly class PortReading
{
    public function __construct(
        public string $port,
        public ?string $serial,
        public ?string $modelName,
        public ?string $version,
        public ?string $mode,
        public ?int $benchId = null,
    ) {
    }
}
