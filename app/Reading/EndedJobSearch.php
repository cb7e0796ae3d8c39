<?php

declare(strict_types=1);

namespace App\Reading;

use App\Models\BenchJob;
use Illuminate\Database\Eloquent\Collection;
use JadeStep\Core\Job\JobState;

/** Finds jobs, ended ones too: by serial, model, version, who took in or handed over, reason, or number. */
final readonly class EndedJobSearch
{
    private const PAGE = 30;

    public function __construct(private RowPages $pages)
    {
    }

    /**
     * @param  string  $find  words that each begin a word of what is known of a job
     * @param  string|null  $state  of the job; `ended` for all that have ended
     * @param  int  $before  a job's number; 0 for the newest
     * @return RowPage<BenchJob>
     */
    public function page(string $find, ?string $state, int $before): RowPage
    {
        $query = BenchJob::query();
        if ($state !== null) {
            $state === 'ended'
                ? $query->where('state', '!=', JobState::Open->value)
                : $query->where('state', $state);
        }
        $page = $this->pages->page(
            $query,
            new RowOrder('id'),
            $before > 0 ? BenchJob::query()->find($before) : null,
            $find,
            self::PAGE,
        );
        Collection::make($page->rows)->load('steps', 'bags', 'usesOfDevice');

        return $page;
    }
}
