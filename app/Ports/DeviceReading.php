<?php

declare(strict_types=1);

namespace App\Ports;

use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\KindStock;
use JadeStep\Core\Device\OwnerLock;
use JadeStep\Core\Job\WayBack\CloudFetch;
use JadeStep\Core\Route\BuildName;

/** What a device tells of itself. */
final readonly class DeviceReading
{
    /**
     * @param  Device  $device  what it is and holds, without what only people know
     * @param  int|null  $benchId  the bench at which it is plugged in
     * @param  bool  $practice  whether it is a stand-in, whose work is faster than life
     * @param  CloudFetch|null  $cloudFetch  what it tells of its owner's cloud backup since it was last erased
     */
    public function __construct(
        public Device $device,
        public ?string $imei,
        public DeviceMode $mode,
        public bool $activated,
        public bool $setUp,
        public ?Operation $operation,
        public ?int $benchId = null,
        public bool $practice = false,
        public ?CloudFetch $cloudFetch = null,
    ) {
    }

    public function at(int $benchId): self
    {
        return new self(
            $this->device,
            $this->imei,
            $this->mode,
            $this->activated,
            $this->setUp,
            $this->operation,
            $benchId,
            $this->practice,
            $this->cloudFetch,
        );
    }

    public function isPaired(): bool
    {
        return $this->device->paired === true;
    }

    public function isLocked(): bool
    {
        return $this->device->ownerLock === OwnerLock::On;
    }

    public function runs(BuildName $build): bool
    {
        return $this->device->build === $build->build && $this->device->version->equals($build->version);
    }

    /** "9.3 (9D55)" */
    public function label(): string
    {
        return "{$this->device->version->label()} ({$this->device->build})";
    }

    public function itemsOf(Kind $kind): int
    {
        return $this->device->itemsOf($kind);
    }

    /** @return array<string, int> items per kind */
    public function counts(): array
    {
        $codes = array_map(static fn (KindStock $s): string => $s->kind->value, $this->device->kinds);

        return array_combine($codes, array_map(static fn (KindStock $s): int => $s->items, $this->device->kinds));
    }
}
