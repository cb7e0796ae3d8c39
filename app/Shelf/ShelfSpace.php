<?php

declare(strict_types=1);

namespace App\Shelf;

/** How much the bags take, in bytes, and how long the rest lasts. */
final readonly class ShelfSpace
{
    /**
     * @param  int  $saved  what lowered copies would take if they did not share their payload
     * @param  float|null  $daysLeft  null where nothing was taken lately
     */
    public function __construct(public int $taken, public int $saved, public int $free, public ?float $daysLeft)
    {
    }
}
