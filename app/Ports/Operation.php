<?php

declare(strict_types=1);

namespace App\Ports;

/** Long work on a device, which goes on whether somebody looks or not. */
final readonly class Operation
{
    /**
     * @param  float  $progress 0 to 1
     * @param  string|null  $wants  what it waits for on the device: consent, passcode
     */
    public function __construct(
        public string $id,
        public string $kind,
        public string $state,
        public string $phase,
        public float $progress,
        public bool $doNotDisturb,
        public ?string $error,
        public ?string $wants = null,
    ) {
    }

    public function isOver(): bool
    {
        return $this->state !== 'running';
    }

    public function succeeded(): bool
    {
        return $this->state === 'done';
    }
}
