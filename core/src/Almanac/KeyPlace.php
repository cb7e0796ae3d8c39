<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

/** Where a key is on a model. */
final readonly class KeyPlace
{
    /** @param  float  $at  share of the edge, from 0 at its top or left to 1 */
    public function __construct(public string $name, public Edge $edge, public float $at)
    {
    }
}
