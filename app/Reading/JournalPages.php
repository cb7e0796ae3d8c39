<?php

declare(strict_types=1);

namespace App\Reading;

use App\Models\JournalLine;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Exchange\JournalCsv;
use JadeStep\Core\Time\Rfc3339;

/** Reads the Journal: filtered, page by page, the newest first; or all of it as CSV, the oldest first. */
final readonly class JournalPages
{
    private const PAGE = 100;

    private const CHUNK = 1000;

    public function __construct(private RowPages $pages)
    {
    }

    /**
     * @param  int  $before  an act's number; 0 for the newest
     * @return RowPage<JournalLine>
     */
    public function page(JournalFilter $filter, int $before): RowPage
    {
        return $this->pages->page(
            self::filtered($filter),
            new RowOrder('created_at'),
            $before > 0 ? JournalLine::query()->find($before) : null,
            $filter->words ?? '',
            self::PAGE,
        );
    }

    /** @return list<string> the codes that occur */
    public function codes(): array
    {
        return self::all('event');
    }

    /** @return list<string> who has acted */
    public function people(): array
    {
        return self::all('who');
    }

    /** @return list<string> */
    private static function all(string $column): array
    {
        $found = DB::table((new JournalLine)->getTable())->distinct()->orderBy($column)->pluck($column);

        return array_values(array_filter($found->all(), is_string(...)));
    }

    /**
     * @return \Generator<string> RFC 4180, with a first line of names
     */
    public function csv(JournalFilter $filter): \Generator
    {
        yield JournalCsv::head();
        $rows = RowPages::having($filter->words ?? '', self::filtered($filter));
        foreach ($rows->lazyById(self::CHUNK) as $act) {
            yield JournalCsv::line([
                (string) $act->id,
                Rfc3339::format($act->created_at->toDateTimeImmutable()),
                $act->who,
                (string) $act->event,
                $act->description,
                (string) $act->serial,
                (string) $act->bench_job_id,
                json_encode($act->properties, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE),
            ]);
        }
    }

    /**
     * @return Builder<JournalLine>
     */
    private static function filtered(JournalFilter $filter): Builder
    {
        $query = JournalLine::query();
        $same = [
            'serial' => $filter->serial,
            'bench_job_id' => $filter->job,
            'who' => $filter->who,
            'event' => $filter->act,
        ];
        foreach (array_filter($same, static fn (mixed $value): bool => $value !== null) as $column => $value) {
            $query->where($column, $value);
        }
        if ($filter->from !== null) {
            $query->where('created_at', '>=', $filter->from->format('Y-m-d H:i:s.v'));
        }
        if ($filter->until !== null) {
            $query->where('created_at', '<', $filter->until->format('Y-m-d H:i:s.v'));
        }

        return $query;
    }
}
