<?php

declare(strict_types=1);

namespace App\Reading;

use App\Models\Bag;

/** Reads the bags on the shelf, page by page, in one of their orders; all, or those that have some words. */
final readonly class ShelfPages
{
    /** What bags are ordered by, and the column of the rows that has an index for it. */
    public const ORDERS = [
        'label' => 'label',
        'serial' => 'serial',
        'taken' => 'taken_at',
        'version' => 'made_on_order',
        'state' => 'state',
        'size' => 'size',
    ];

    private const PAGE = 50;

    public function __construct(private RowPages $pages)
    {
    }

    /**
     * @param  string  $find  words of a bag's name, device, versions, state or kinds
     * @param  key-of<self::ORDERS>  $by
     * @param  string|null  $after  the bag that ended the page before
     * @return RowPage<Bag>
     */
    public function page(string $find, string $by, bool $up, ?string $after): RowPage
    {
        $column = self::ORDERS[$by];

        return $this->pages->page(
            Bag::query()->withoutGlobalScope('in-order'),
            new RowOrder($column, ! $up),
            $after === null ? null : Bag::query()->withoutGlobalScopes()->find($after, ['id', $column]),
            $find,
            self::PAGE,
        );
    }
}
