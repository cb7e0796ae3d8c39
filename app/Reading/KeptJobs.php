<?php

declare(strict_types=1);

namespace App\Reading;

use App\Facts\RestingJobs;
use App\Models\BenchJob;
use App\Models\SideExportRecord;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Job\JobState;
use Psr\Clock\ClockInterface;

/**
 * What lists show of jobs, kept for each job as long as nothing of it changes: its row, its steps, its bags. Only what
 * has changed is read and worked out again.
 */
final readonly class KeptJobs
{
    /** Of what is kept; another form is another version. */
    private const FORM = 2;

    /** What a step has waited for long enough becomes a hand that is wanted, without a change of any row. */
    private const SECONDS_OF_A_PROBLEM = 5;

    public function __construct(private KeptAnswers $kept, private RestingJobs $resting, private ClockInterface $clock)
    {
    }

    /**
     * @param  \Closure(BenchJob): mixed  $tell  a job's summary
     * @return list<KeptJob> in the order of their numbers
     */
    public function open(\Closure $tell): array
    {
        $open = self::numbers(BenchJob::open()->toBase()->orderBy('id'));

        return self::summaries($this->each('job', $open, ['steps', 'bags'], $tell));
    }

    /**
     * @param  \Closure(BenchJob): mixed  $tell  a job's summary
     * @return list<KeptJob> the latest first
     */
    public function latestEnded(int $many, \Closure $tell): array
    {
        $ended = BenchJob::query()->where('state', '!=', JobState::Open)->latest('id')->limit($many)->toBase();

        return self::summaries($this->each('job', self::numbers($ended), ['steps', 'bags', 'usesOfDevice'], $tell));
    }

    /**
     * @param  array<int, \stdClass>  $told
     * @return list<KeptJob>
     */
    private static function summaries(array $told): array
    {
        return array_values(array_map(KeptJob::ofSummary(...), $told));
    }

    /** @return array<string, string> why open jobs rest on bags and packages, by bag id or package SHA-256 */
    public function restedOn(): array
    {
        $why = [];
        foreach ($this->holdings() as $words) {
            $why += $words;
        }

        return $why;
    }

    /** @return array<string, list<int>> the open jobs that rest on each of them */
    public function restingJobs(): array
    {
        $jobs = [];
        foreach ($this->holdings() as $job => $words) {
            foreach (array_keys($words) as $id) {
                $jobs[$id][] = $job;
            }
        }

        return $jobs;
    }

    /** @return array<int, array<string, string>> by job: what it rests on, and why */
    private function holdings(): array
    {
        $open = self::numbers(BenchJob::open()->toBase()->orderBy('id'));
        $told = $this->each(
            'holdings '.(SideExportRecord::query()->latest('id')->first()->id ?? 0),
            $open,
            ['steps', 'bags'],
            fn (BenchJob $job): object => (object) $this->resting->of($job),
        );

        return array_map(static fn (\stdClass $words): array => array_map(strval(...), (array) $words), $told);
    }

    /**
     * @param  list<int>  $jobs  numbers
     * @param  list<string>  $with  what is read with them
     * @param  \Closure(BenchJob): mixed  $tell
     * @return array<int, \stdClass> what is told of each, in their order
     */
    private function each(string $what, array $jobs, array $with, \Closure $tell): array
    {
        $name = static fn (int $job): string => "{$what} {$job}";
        $versions = [];
        foreach ($this->versions($jobs) as $job => $version) {
            $versions[$name($job)] = $version;
        }
        $make = static function (array $old) use ($jobs, $name, $with, $tell): array {
            $wanted = array_filter($jobs, static fn (int $job): bool => in_array($name($job), $old, true));
            $made = [];
            foreach (BenchJob::query()->with($with)->findMany($wanted) as $job) {
                $made[$name($job->id)] = $tell($job);
            }

            return $made;
        };

        $told = $this->kept->ofMany($versions, $make);
        $each = [];
        foreach ($jobs as $job) {
            if (($told[$name($job)] ?? null) instanceof \stdClass) {
                $each[$job] = $told[$name($job)];
            }
        }

        return $each;
    }

    /**
     * @param  list<int>  $jobs
     * @return array<int, string> by job, in their order
     */
    private function versions(array $jobs): array
    {
        if ($jobs === []) {
            return [];
        }
        $rows = DB::table('bench_jobs')->whereIn('id', $jobs)->selectRaw('id, CONCAT(changed_at) AS version');
        $changes = 'COUNT(*), " ", SUM(UNIX_TIMESTAMP(changed_at))';
        $steps = self::ofJobs('job_steps', $jobs)
            ->selectRaw("bench_job_id, CONCAT({$changes}, IF(COUNT(problem) > 0, ?, '')) AS version", [
                ' '.intdiv($this->clock->now()->getTimestamp(), self::SECONDS_OF_A_PROBLEM),
            ])
            ->unionAll(self::ofJobs('bags', $jobs)->selectRaw("bench_job_id, CONCAT({$changes})"))
            ->unionAll($rows);
        $versions = array_fill_keys($jobs, (string) self::FORM);
        foreach ($steps->get() as $row) {
            $of = Fields::of((array) $row);
            $versions[$of->int('bench_job_id')] .= ', '.$of->string('version');
        }

        return $versions;
    }

    /** @param  list<int>  $jobs */
    private static function ofJobs(string $table, array $jobs): Builder
    {
        return DB::table($table)->whereIn('bench_job_id', $jobs)->groupBy('bench_job_id');
    }

    /** @return list<int> */
    private static function numbers(Builder $jobs): array
    {
        return array_values(array_map(
            static fn (mixed $id): int => is_int($id) ? $id : throw new \LogicException('A job has a number.'),
            $jobs->pluck('id')->all(),
        ));
    }
}
