<?php

declare(strict_types=1);

namespace App\Ports;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;

/**
 * One port of the bench and what is plugged in there; a device that restarts is not seen for a while. What is near by
 * air only has a place of its own here, and no cable. A link may tell how many keys of the sequence for recovery mode
 * the device has heard by now.
 */
final readonly class PortReading implements Kept
{
    public function __construct(
        public string $port,
        public ?string $serial,
        public ?string $modelName,
        public ?string $version,
        public ?DeviceMode $mode,
        public ?int $benchId = null,
        public bool $byAir = false,
        public ?int $keysHeard = null,
    ) {
    }

    public function at(int $benchId): self
    {
        return new self(
            $this->port,
            $this->serial,
            $this->modelName,
            $this->version,
            $this->mode,
            $benchId,
            $this->byAir,
            $this->keysHeard,
        );
    }

    public static function ofFields(Fields $fields): self
    {
        return new self(
            $fields->string('port'),
            $fields->maybeString('serial'),
            $fields->maybeString('modelName'),
            $fields->maybeString('version'),
            $fields->maybeEnum('mode', DeviceMode::class),
            null,
            $fields->maybeBool('byAir') ?? false,
            $fields->maybeInt('keysHeard'),
        );
    }

    public function fields(): array
    {
        return [
            'port' => $this->port,
            'serial' => $this->serial,
            'modelName' => $this->modelName,
            'version' => $this->version,
            'mode' => $this->mode?->value,
            'byAir' => $this->byAir,
            'keysHeard' => $this->keysHeard,
        ];
    }
}
