<?php

declare(strict_types=1);

namespace App\Packages;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Package;

/** A package that a held catalogue names, with the build that it installs. */
final readonly class KnownPackage
{
    public function __construct(public string $vendor, public Build $build, public Package $package)
    {
    }
}
