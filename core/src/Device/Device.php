<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

use JadeStep\Core\Copied;
use JadeStep\Core\Version\Version;

/** One device as it was last read. What a device that is not plugged in does not tell is null. */
final readonly class Device
{
    /**
     * @param  list<Accessory>  $accessories
     * @param  list<App>  $apps
     * @param  list<KindStock>  $kinds
     * @param  bool  $dataOnDevice  false where an install has begun to erase: what was on it is in the backups only
     * @param  bool  $bootable  false where an install broke off: it runs nothing, and can only be erased and written
     *   anew
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
        return Copied::with($this, kinds: $kinds);
    }

    /** The same device without the kinds of which it holds nothing: what is not there cannot be lost. */
    public function withoutEmptyKinds(): self
    {
        $held = array_filter($this->kinds, static fn (KindStock $s): bool => $s->items > 0);

        return $this->holding(array_values($held));
    }

    /** Used bytes bound a backup from above; where storage is not read, the sizes of the kinds stand in. */
    public function backupBytesAtMost(): int
    {
        return $this->capacityBytes !== null && $this->freeBytes !== null
            ? max(0, $this->capacityBytes - $this->freeBytes)
            : $this->contentBytes();
    }

    /**
     * @param  list<string>  $ids  of accessories
     * @return list<string> as people call them; an id that is not known stays itself
     */
    public function accessoryNames(array $ids): array
    {
        $names = array_combine(
            array_column($this->accessories, 'id'),
            array_map($this->nameOf(...), $this->accessories),
        );

        return array_map(static fn (string $id): string => $names[$id] ?? $id, $ids);
    }

    /** Its id is told only where it has several of one type. */
    private function nameOf(Accessory $accessory): string
    {
        $alike = array_filter($this->accessories, static fn (Accessory $a): bool => $a->type === $accessory->type);

        return count($alike) > 1 ? "{$accessory->name()} ({$accessory->id})" : $accessory->name();
    }

    /**
     * @param  list<string>  $ids  of apps
     * @return list<string> as people call them; an id that is not known stays itself
     */
    public function appNames(array $ids): array
    {
        $names = array_column($this->apps, 'name', 'id');

        return array_map(static fn (string $id): string => $names[$id] ?? $id, $ids);
    }

    /** How many items of a kind it was read to hold; 0 where it does not tell of the kind. */
    public function itemsOf(Kind $kind): int
    {
        foreach ($this->kinds as $stock) {
            if ($stock->kind === $kind) {
                return $stock->items;
            }
        }

        return 0;
    }

    /**
     * The same device as it stands in the middle of a crossing.
     *
     * @param  self|null  $now  as it tells of itself now; null where it is not seen
     */
    public function past(?self $now, bool $dataOnDevice): self
    {
        // where nothing of it is known it is taken for the worse
        $bootable = $now === null ? $dataOnDevice : $now->bootable;
        $live = $now === null ? [] : [
            'version' => $now->version, 'build' => $now->build, 'rollbackCounter' => $now->rollbackCounter,
            'batteryPercent' => $now->batteryPercent, 'charging' => $now->charging,
        ];

        return Copied::with($this, ...$live, dataOnDevice: $dataOnDevice, bootable: $bootable);
    }

    /** The same device with what changes while it lies on the bench, as it tells of it now. */
    public function live(self $now): self
    {
        return Copied::with($this, ...[
            'batteryPercent' => $now->batteryPercent, 'charging' => $now->charging, 'ownerLock' => $now->ownerLock,
            'lockDelay' => $now->lockDelay, 'lockDelayEndsAt' => $now->lockDelayEndsAt, 'paired' => $now->paired,
            'betaEnrolled' => $now->betaEnrolled,
        ] + ($now->paired === true ? ['freeBytes' => $now->freeBytes, 'accessories' => $now->accessories] : []));
    }

    public function contentBytes(): int
    {
        return array_sum(array_map(static fn (KindStock $k): int => $k->bytes, $this->kinds));
    }
}
