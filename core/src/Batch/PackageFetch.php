<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Route\Minutes;

/** A package that is not here yet: it is fetched once, whoever needs it. */
final readonly class PackageFetch
{
    /** @param  string  $name  that steps know it by */
    public function __construct(public string $name, public Minutes $minutes, public int $bytes = 0)
    {
    }
}
