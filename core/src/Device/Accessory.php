<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

use JadeStep\Core\Version\Version;

final readonly class Accessory
{
    public function __construct(public string $id, public string $type, public Version $osVersion)
    {
    }

    /** "Fenn Band" */
    public function name(): string
    {
        return ucwords(str_replace('-', ' ', $this->type));
    }
}
