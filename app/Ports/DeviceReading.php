<?php

declare(strict_types=1);

namespace App\Ports;

/** What a device tells of itself. */
final readonly class DeviceReading
{
    public const NORMAL = 'normal';

    public const RECOVERY = 'recovery';

    /** @param  array<string, mixed>  $facts named as in a situation document's device, without what only people know */
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
    ) {
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
