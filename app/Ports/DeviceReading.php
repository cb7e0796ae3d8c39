<?php

declare(strict_types=1);

namespace App\Ports;

/** What a device tells of itself. */
final readonly class DeviceReading
{
    public const NORMAL = 'normal';

    public const RECOVERY = 'recovery';

    /**
     * @param  array<string, mixed>  $facts  named as in a situation document's device, without what only people know
     * @param  bool  $bootable  false where an install broke off and the device runs nothing
     * @param  int|null  $benchId  the bench at which it is plugged in
     */
    public function __construct(
        public string $serial,
        public ?string $imei,
        public string $mode,
        public string $version,
        public string $build,
        public bool $paired,
        public bool $activated,
        public bool $setUp,
        public ?Operation $operation,
        public array $facts,
        public bool $bootable = true,
        public ?int $benchId = null,
    ) {
    }

    public function at(int $benchId): self
    {
        return new self(...['benchId' => $benchId] + get_object_vars($this));
    }

    public function runs(string $version, string $build): bool
    {
        return $this->version === $version && $this->build === $build;
    }

    /** @return array<string, int> items per kind */
    public function counts(): array
    {
        return array_column($this->facts['kinds'], 'items', 'kind');
    }
}
