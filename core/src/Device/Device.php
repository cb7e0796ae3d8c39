<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

use JadeStep\Core\Version\Version;

/** One device as it was last read. What a device that is not plugged in does not tell is null. */
final readonly class Device
{
    /**
     * @param  list<Accessory>  $accessories
     * @param  list<App>  $apps
     * @param  list<KindStock>  $kinds
     * @param  bool  $dataOnDevice  false where an install has begun to erase: what was on it is in the backups only
     * @param  bool  $bootable  false where an install broke off: it runs nothing, and can only be erased and written anew
     */
    public function __construct(
        public string $serial,
        public ?string $hardwareId,
        public string $modelName,
        public string $osLine,
        public Version $version,
        public string $build,
        public ?int $rollbackCounter,
        public ?int $radioMinimum,
        public ?int $capacityBytes,
        public ?int $freeBytes,
        public ?int $batteryPercent,
        public ?bool $charging,
        public ?bool $paired,
        public ?OwnerLock $ownerLock,
        public ?OwnerLock $lockDelay,
        public ?\DateTimeImmutable $lockDelayEndsAt,
        public ?bool $ownerAccountAtHand,
        public ?bool $passcodeKnown,
        public ?bool $betaEnrolled,
        public array $accessories,
        public array $apps,
        public array $kinds,
        public Unresolved $identity,
        public bool $dataOnDevice = true,
        public bool $bootable = true,
    ) {
    }

    /**
     * The same device with other contents.
     *
     * @param  list<KindStock>  $kinds
     */
    public function holding(array $kinds): self
    {
        return new self(...['kinds' => $kinds] + get_object_vars($this));
    }

    /** Used bytes bound a backup from above; where storage is not read, the sizes of the kinds stand in. */
    public function backupBytesAtMost(): int
    {
        return $this->capacityBytes !== null && $this->freeBytes !== null
            ? max(0, $this->capacityBytes - $this->freeBytes)
            : $this->contentBytes();
    }

    public function contentBytes(): int
    {
        return array_sum(array_map(static fn (KindStock $k): int => $k->bytes, $this->kinds));
    }
}
