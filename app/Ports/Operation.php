<?php

declare(strict_types=1);

namespace App\Ports;

use JadeStep\Core\Job\Phase;

/** Long work on a device, which goes on whether somebody looks or not. */
final readonly class Operation
{
    private const RUNNING = 'running';

    private const DONE = 'done';

    /**
     * @param  string  $kind  as the link names it: pair, install, return, …
     * @param  string  $state  running, done or failed
     * @param  float  $progress 0 to 1
     * @param  string|null  $error  cable-out or failed, where it failed
     * @param  string|null  $wants  what it waits for on the device: consent, passcode
     */
    public function __construct(
        public string $id,
        public string $kind,
        public string $state,
        public Phase $phase,
        public float $progress,
        public bool $doNotDisturb,
        public ?string $error,
        public ?string $wants = null,
    ) {
    }

    public function isOver(): bool
    {
        return $this->state !== self::RUNNING;
    }

    public function succeeded(): bool
    {
        return $this->state === self::DONE;
    }
}
