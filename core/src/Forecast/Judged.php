<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/** A chance that was told, and whether the window then held. */
final readonly class Judged
{
    public function __construct(public float $chance, public bool $held)
    {
    }
}
