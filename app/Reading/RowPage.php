<?php

declare(strict_types=1);

namespace App\Reading;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Collection;

/**
 * A page of rows in their order.
 *
 * @template T of Model
 */
final readonly class RowPage
{
    /**
     * @param  Collection<int, T>  $rows
     * @param  T|null  $goOn  the row after which the next page begins; null where this is the last one
     */
    public function __construct(public Collection $rows, public ?Model $goOn)
    {
    }
}
