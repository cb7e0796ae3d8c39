<?php

declare(strict_types=1);

namespace App\Reading;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\QueryException;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Reads rows page by page, all or those that have some words, at a cost that follows from what is shown. Each word
 * begins a word of the row's `search_words`.
 *
 * Words that many rows have are soon found among the first rows; those are read one by one. Only beyond them the
 * database's index of words is asked, with the longest of them. Where that takes too long, which needs a word that is
 * common and that none of the first rows has, the page ends where the reading ended, and the next one goes on.
 */
final readonly class RowPages
{
    private const READ_ONE_BY_ONE = 2000;

    private const SECONDS = 2;

    /** What InnoDB's index does not hold: shorter ones, and its innodb_ft_default_stopword. */
    private const SHORTEST = 3;

    private const NOT_INDEXED = [
        'about', 'are', 'com', 'for', 'from', 'how', 'that', 'the', 'this', 'und', 'was', 'what', 'when', 'where',
        'who', 'will', 'with', 'www',
    ];

    private const STATEMENT_TOOK_TOO_LONG = 1969;

    /**
     * @template T of Model
     *
     * @param  Builder<T>  $rows  filtered
     * @param  T|null  $after  the row that ended the page before
     * @param  string  $words  separated by blanks; none for all rows
     * @return RowPage<T>
     */
    public function page(Builder $rows, RowOrder $order, ?Model $after, string $words, int $size): RowPage
    {
        $left = $after === null ? $rows : $order->after($rows, $after);
        if (trim($words) === '') {
            return self::cut($order->apply($left)->limit($size + 1)->get(), $size);
        }
        $found = self::having($words, self::among($order->apply($left)->limit(self::READ_ONE_BY_ONE)));
        $found = $order->apply($found)->limit($size + 1)->get();
        $edge = $order->apply($left)->offset(self::READ_ONE_BY_ONE - 1)->select('id', $order->column);
        $edge = $found->count() > $size ? null : $edge->first();
        if ($edge === null) {
            return self::cut($found, $size);
        }
        $far = self::indexed($order->apply($order->after($rows, $edge)), $words, $size + 1 - $found->count());

        return $far === null ? new RowPage($found->toBase(), $edge) : self::cut($found->concat($far), $size);
    }

    /**
     * @template T of Model
     *
     * @param  Collection<int, T>  $rows  one more than the page has, where there are more
     * @return RowPage<T>
     */
    private static function cut(Collection $rows, int $size): RowPage
    {
        $page = $rows->take($size)->values()->toBase();

        return new RowPage($page, $rows->count() > $size ? $page->last() : null);
    }

    /**
     * @template T of Model
     *
     * @param  Builder<T>  $rows
     * @return Builder<T> the same rows, so that conditions on them are held against no others
     */
    private static function among(Builder $rows): Builder
    {
        $model = $rows->getModel();
        $near = $rows->select($model->qualifyColumn('id')); // the index of the order has it

        return $model->newQueryWithoutScopes()
            ->joinSub($near, 'near', 'near.id', '=', $model->qualifyColumn('id'))
            ->select($model->qualifyColumn('*'));
    }

    /**
     * Adds the condition that rows have the words, each read.
     *
     * @template T of Model
     *
     * @param  Builder<T>  $rows
     * @return Builder<T>
     */
    public static function having(string $words, Builder $rows): Builder
    {
        preg_match_all('/\S+/u', $words, $each);
        foreach ($each[0] as $word) {
            $rows->whereRaw('search_words REGEXP ?', ['(?<![\pL\pN_])'.preg_quote($word)]);
        }

        return $rows;
    }

    /**
     * @template T of Model
     *
     * @param  Builder<T>  $rows
     * @return Collection<int, T>|null null where the index cannot tell, or not in time
     */
    private static function indexed(Builder $rows, string $words, int $limit): ?Collection
    {
        preg_match_all('/[\pL\pN_]+/u', mb_strtolower($words), $parts);
        $known = array_filter(
            $parts[0],
            static fn (string $p): bool => mb_strlen($p) >= self::SHORTEST && ! in_array($p, self::NOT_INDEXED, true),
        );
        usort($known, static fn (string $a, string $b): int => mb_strlen($b) <=> mb_strlen($a));
        if ($known === []) {
            return null;
        }
        $rows->whereRaw('MATCH (search_words) AGAINST (? IN BOOLEAN MODE)', ["{$known[0]}*"]);
        DB::statement('SET SESSION max_statement_time = '.self::SECONDS);
        try {
            return self::having($words, $rows)->limit($limit)->get()->toBase();
        } catch (QueryException $e) {
            return ($e->errorInfo[1] ?? null) === self::STATEMENT_TOOK_TOO_LONG ? null : throw $e;
        } finally {
            DB::statement('SET SESSION max_statement_time = DEFAULT');
        }
    }
}
