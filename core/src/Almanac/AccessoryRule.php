<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

use JadeStep\Core\Version\VersionRange;

/** An accessory of this type and OS range keeps its pairing only with a host in the needed range. */
final readonly class AccessoryRule
{
    public function __construct(public string $type, public VersionRange $osVersion, public VersionRange $needsHost)
    {
    }
}
