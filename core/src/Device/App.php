<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

use JadeStep\Core\Version\Version;

final readonly class App
{
    public function __construct(public string $id, public string $name, public Version $minimumOs)
    {
    }
}
