<?php

declare(strict_types=1);

namespace App\Reading;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/** An order of rows by a column and then by their ids, which an index has, and the part of it that follows a row. */
final readonly class RowOrder
{
    public function __construct(public string $column, public bool $down = true)
    {
    }

    /**
     * @template T of Model
     *
     * @param  Builder<T>  $rows
     * @return Builder<T>
     */
    public function apply(Builder $rows): Builder
    {
        $way = $this->down ? 'desc' : 'asc';

        return $rows->clone()
            ->reorder()
            ->orderBy($rows->qualifyColumn($this->column), $way)
            ->orderBy($rows->qualifyColumn('id'), $way);
    }

    /**
     * The first condition is the one that an index is read from.
     *
     * @template T of Model
     *
     * @param  Builder<T>  $rows
     * @param  T  $row
     * @return Builder<T>
     */
    public function after(Builder $rows, Model $row): Builder
    {
        $than = $this->down ? '<' : '>';
        $value = $row->getRawOriginal($this->column);

        return $rows->clone()->where($this->column, "{$than}=", $value)->where(
            fn (Builder $q) => $q->where($this->column, $than, $value)->orWhere('id', $than, $row->getKey()),
        );
    }
}
