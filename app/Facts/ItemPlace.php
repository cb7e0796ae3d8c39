<?php

declare(strict_types=1);

namespace App\Facts;

/** A bag that has an item, or may have it, and under which path. */
final readonly class ItemPlace
{
    /** @param  bool  $told  whether the bag tells that it has it; an encrypted one of another time does not */
    public function __construct(public string $bag, public string $path, public bool $told)
    {
    }
}
