<?php

declare(strict_types=1);

namespace App\Reading;

use App\Ports\DeviceMode;

/** Where a device is plugged in now, as it stands on the bench. */
final readonly class Place implements \JsonSerializable
{
    /** @param  int|null  $keysHeard  of the sequence for recovery mode; null where the link does not tell */
    public function __construct(
        public string $bench,
        public string $port,
        public string $label,
        public bool $byAir,
        public ?DeviceMode $mode,
        public ?int $keysHeard,
    ) {
    }

    public function jsonSerialize(): mixed
    {
        return [
            'bench' => $this->bench,
            'port' => $this->port,
            'label' => $this->label,
            'byAir' => $this->byAir,
            'mode' => $this->mode?->value,
            'keysHeard' => $this->keysHeard,
        ];
    }
}
