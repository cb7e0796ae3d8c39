<?php

declare(strict_types=1);

namespace App\Reading;

use App\Ports\PortReading;

/** One port of a bench, and what was last seen there. */
final readonly class PortRow implements \JsonSerializable
{
    /**
     * @param  int|null  $jobId  the open job that holds the device
     * @param  string|null  $agreedBy  of a device near by air: who said that its owner has agreed
     */
    public function __construct(
        public string $port,
        public string $label,
        public ?PortReading $seen,
        public ?int $jobId,
        public ?string $agreedBy = null,
    ) {
    }

    public function jsonSerialize(): mixed
    {
        return [
            'port' => $this->port,
            'label' => $this->label,
            'occupied' => $this->seen !== null,
            'serial' => $this->seen?->serial,
            'modelName' => $this->seen?->modelName,
            'version' => $this->seen?->version,
            'mode' => $this->seen?->mode?->value,
            'jobId' => $this->jobId,
            'byAir' => $this->seen->byAir ?? false,
            'agreedBy' => $this->agreedBy,
        ];
    }
}
