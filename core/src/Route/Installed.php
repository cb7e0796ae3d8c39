<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Version\Version;

/** What a device runs at one point of a route, and the rollback counter stored in it by then. */
final readonly class Installed
{
    private function __construct(public Version $version, public string $build, public ?int $rollbackCounter)
    {
    }

    public static function on(Device $device): self
    {
        return new self($device->version, $device->build, $device->rollbackCounter);
    }

    /** Verified boot raises the counter to the index of what is installed, and never lowers it. */
    public function after(Build $build): self
    {
        return new self($build->version, $build->build, $this->rollbackCounter === null ? null : max($this->rollbackCounter, $build->rollbackIndex));
    }
}
