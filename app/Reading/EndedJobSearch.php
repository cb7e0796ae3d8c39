<?php

declare(strict_types=1);

namespace App\Reading;

use App\Models\BenchJob;
use App\Models\User;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use JadeStep\Core\Job\JobState;

/** Finds jobs, ended ones too: by serial, model, version, who took in or handed over, reason, or number. */
final readonly class EndedJobSearch
{
    private const PAGE = 30;

    /**
     * @param  string  $find  words that all have to occur
     * @param  string|null  $state  of the job; `ended` for all that have ended
     * @param  int  $before  a job's number; 0 for the newest
     */
    public function page(string $find, ?string $state, int $before): JobPage
    {
        $query = BenchJob::query()->with('steps', 'bags', 'usesOfDevice');
        $state === 'ended'
            ? $query->where('state', '!=', JobState::Open->value)
            : ($state === null
                ? null
                : $query->where('state', $state));
        foreach (
            array_slice(array_filter(explode(' ', $find), static fn (string $w): bool => $w !== ''), 0, 8) as $word
        ) {
            $query->where(fn (Builder $q) => $this->holds($q, $word));
        }
        $inAll = (clone $query)->count();
        /** @var Collection<int, BenchJob> $jobs */
        $jobs = ($before > 0 ? $query->where('id', '<', $before) : $query)
            ->orderByDesc('id')
            ->limit(self::PAGE + 1)
            ->get();
        $more = $jobs->count() > self::PAGE;
        $jobs = $jobs->take(self::PAGE);

        return new JobPage($jobs->toBase(), $more ? $jobs->last()?->id : null, $inAll);
    }

    /** @param  Builder<BenchJob>  $q */
    private function holds(Builder $q, string $word): void
    {
        $like = '%'.addcslashes(mb_strtolower($word), '%_\\').'%'; // JSON columns compare letter by letter
        $q->where('serial', 'like', $like)
            ->orWhere('end_reason', 'like', $like)
            ->orWhere('ended_by', 'like', $like)
            ->orWhereRaw('LOWER(losses) LIKE ?', [$like])
            ->orWhereRaw("LOWER(JSON_VALUE(device, '$.modelName')) LIKE ?", [$like])
            ->orWhereRaw("JSON_VALUE(device, '$.version') LIKE ?", [$like])
            ->orWhereRaw("JSON_VALUE(proof, '$.after.version') LIKE ?", [$like])
            ->orWhereIn('opened_by', User::query()->select('id')->where('name', 'like', $like));
        ctype_digit($word) ? $q->orWhere('id', (int) $word) : null;
    }
}
