<?php

declare(strict_types=1);

namespace App\Reading;

use App\Models\JournalLine;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use JadeStep\Core\Exchange\JournalCsv;
use JadeStep\Core\Time\Rfc3339;

/** Reads the Journal: filtered, page by page, the newest first; or all of it as CSV, the oldest first. */
final readonly class JournalPages
{
    private const PAGE = 100;

    private const CHUNK = 1000;

    /**
     * @param  array{serial?: string, job?: int, who?: string, act?: string, from?: string, until?: string, words?: string}  $filter
     * @param  int  $before  an act's number; 0 for the newest
     * @return array{acts: Collection<int, JournalLine>, older: int|null} older: the number to ask before, where there is more
     */
    public function page(array $filter, int $before): array
    {
        $query = $this->filtered($filter)->orderByDesc('id');
        $acts = ($before > 0 ? $query->where('id', '<', $before) : $query)->limit(self::PAGE + 1)->get();
        $more = $acts->count() > self::PAGE;
        $acts = $acts->take(self::PAGE);

        return ['acts' => $acts, 'older' => $more ? $acts->last()?->id : null];
    }

    /** @return list<string> the codes that occur */
    public function codes(): array
    {
        return array_values(JournalLine::query()->toBase()->distinct()->orderBy('event')->pluck('event')->all());
    }

    /** @return list<string> who has acted */
    public function people(): array
    {
        return array_values(JournalLine::query()->toBase()->distinct()->orderBy('who')->pluck('who')->all());
    }

    /**
     * @param  array<string, mixed>  $filter
     * @return \Generator<string> RFC 4180, with a first line of names
     */
    public function csv(array $filter): \Generator
    {
        yield JournalCsv::head();
        foreach ($this->filtered($filter)->lazyById(self::CHUNK) as $act) {
            yield JournalCsv::line([
                (string) $act->id, Rfc3339::format($act->created_at->toDateTimeImmutable()), $act->who, (string) $act->event, $act->description,
                (string) $act->serial, (string) $act->bench_job_id, json_encode($act->properties, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE),
            ]);
        }
    }

    /**
     * @param  array<string, mixed>  $filter
     * @return Builder<JournalLine>
     */
    private function filtered(array $filter): Builder
    {
        $query = JournalLine::query();
        foreach (['serial' => 'serial', 'job' => 'bench_job_id', 'who' => 'who', 'act' => 'event'] as $field => $column) {
            isset($filter[$field]) ? $query->where($column, $filter[$field]) : null;
        }
        isset($filter['from']) ? $query->where('created_at', '>=', Rfc3339::parse($filter['from'])->format('Y-m-d H:i:s.v')) : null;
        isset($filter['until']) ? $query->where('created_at', '<', Rfc3339::parse($filter['until'])->format('Y-m-d H:i:s.v')) : null;
        if (isset($filter['words'])) {
            $like = '%'.addcslashes(mb_strtolower($filter['words']), '%_\\').'%'; // JSON columns compare letter by letter
            $query->where(static fn (Builder $q) => $q->where('description', 'like', $like)->orWhereRaw('LOWER(properties) LIKE ?', [$like])->orWhere('serial', 'like', $like)->orWhere('who', 'like', $like));
        }

        return $query;
    }
}
