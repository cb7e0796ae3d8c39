<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Version\Version;

/**
 * What a device runs at one point of a route, whether it runs it at all, and the rollback counter stored in it by
 * then; one that is not known counts as 0.
 */
final readonly class Installed
{
    private function __construct(
        public Version $version,
        public string $build,
        public int $rollbackCounter,
        public bool $bootable,
    ) {
    }

    public static function on(Device $device): self
    {
        return new self($device->version, $device->build, $device->rollbackCounter ?? 0, $device->bootable);
    }

    /** What broke off half-written is not counted as running. */
    public function runs(Build $build): bool
    {
        return $this->bootable && $build->is($this->version, $this->build);
    }

    /** Verified boot raises the counter to the index of what is installed, and never lowers it. */
    public function after(Build $build): self
    {
        return new self(
            $build->version,
            $build->build,
            max($this->rollbackCounter, $build->rollbackIndex),
            true,
        );
    }
}
