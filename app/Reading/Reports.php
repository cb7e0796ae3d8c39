<?php

declare(strict_types=1);

namespace App\Reading;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\ReturnRecord;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Evidence\Proportion;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Report\JobReport;
use JadeStep\Core\Report\ReportedJob;
use JadeStep\Core\Report\WayTaken;
use Psr\Clock\ClockInterface;

/** The report of some days: its ended jobs, and what the backups took meanwhile. Kept until a job or a bag changes. */
final readonly class Reports
{
    private const DAY = 86_400;

    public function __construct(private KeptAnswers $kept, private ClockInterface $clock)
    {
    }

    /**
     * @param  \DateTimeImmutable  $from  the first moment
     * @param  \DateTimeImmutable  $until  the first moment that is not in it any more
     * @return mixed as the API tells it
     */
    public function told(\DateTimeImmutable $from, \DateTimeImmutable $until): mixed
    {
        $span = "{$from->getTimestamp()} {$until->getTimestamp()}";

        return $this->kept->of(
            "report {$span}",
            $this->version(),
            fn (): array => $this->made($from, $until),
        );
    }

    /** @return list<ReportedJob> in the order in which they ended */
    public function jobs(\DateTimeImmutable $from, \DateTimeImmutable $until): array
    {
        $jobs = [];
        $ended = BenchJob::query()
            ->where('ended_at', '>=', $from)
            ->where('ended_at', '<', $until)
            ->where('nightly', false)
            ->with('steps')
            ->oldest('ended_at')
            ->oldest('id');
        foreach ($ended->lazy(100) as $job) {
            $jobs[] = self::reported($job);
        }

        return $jobs;
    }

    /** @return array<string, mixed> */
    private function made(\DateTimeImmutable $from, \DateTimeImmutable $until): array
    {
        $jobs = $this->jobs($from, $until);
        $report = JobReport::of($jobs, self::lowered($from, $until));

        return [
            'jobs' => $report->jobs,
            'byModel' => self::counted($report->byModel, static fn (string $model): string => $model),
            'byWay' => self::counted($report->byWay, static fn (string $w): string => WayTaken::from($w)->label()),
            'byOutcome' => array_map(
                static fn (string $s, int $n): array => [
                    'outcome' => $s,
                    'label' => JobState::from($s)->label(),
                    'jobs' => $n,
                ],
                array_keys($report->byOutcome),
                $report->byOutcome,
            ),
            'minutes' => $report->minutes,
            'times' => self::times($jobs),
            'losses' => array_map(
                static fn (string $kind, array $l): array => ['kind' => $kind] + $l,
                array_keys($report->losses),
                $report->losses,
            ),
            'lowered' => array_map(
                static fn (string $kind, Proportion $p): array => ['kind' => $kind] + get_object_vars($p),
                array_keys($report->lowered),
                $report->lowered,
            ),
            'bytes' => $this->bytesByDay($from, $until),
        ];
    }

    /** @return string what every report is made from, as far as it can change; a day's end is one more bar */
    private function version(): string
    {
        $of = static fn (string $table): mixed => DB::table($table)
            ->selectRaw('COUNT(*) AS many, MAX(changed_at) AS last')
            ->first();
        $day = intdiv($this->clock->now()->getTimestamp(), self::DAY);
        $now = [$day, $of('bench_jobs'), $of('bags'), ReturnRecord::query()->count()];

        return hash('xxh128', (string) json_encode($now));
    }

    private static function reported(BenchJob $job): ReportedJob
    {
        $took = array_sum(array_map(static fn (StepTime $t): float => $t->took ?? 0.0, StepTimes::of($job)));

        return new ReportedJob(
            $job->id,
            ($job->ended_at ?? $job->updated_at)->toDateTimeImmutable(),
            $job->device->modelName ?? 'not known',
            (string) $job->device?->version,
            $job->route === null ? '' : (string) $job->route->end()->version,
            WayTaken::of($job->route),
            $job->state,
            $job->route?->minutes->expected,
            $took > 0.0 ? $took : null,
            ReportedJob::lostOf($job->proof),
            (string) $job->ended_by,
        );
    }

    /** @return list<array{string, bool}> */
    private static function lowered(\DateTimeImmutable $from, \DateTimeImmutable $until): array
    {
        return array_values(ReturnRecord::query()
            ->where('noted_at', '>=', $from)
            ->where('noted_at', '<', $until)
            ->get(['kind', 'succeeded'])
            ->map(static fn (ReturnRecord $r): array => [$r->kind, $r->succeeded])
            ->all());
    }

    /**
     * @param  array<string, array<string, int>>  $counts
     * @param  \Closure(string): string  $named
     * @return list<array{name: string, jobs: int, outcomes: array<string, int>}>
     */
    private static function counted(array $counts, \Closure $named): array
    {
        return array_map(
            static fn (string|int $of, array $by): array => [
                'name' => $named((string) $of), 'jobs' => array_sum($by), 'outcomes' => $by,
            ],
            array_keys($counts),
            $counts,
        );
    }

    /**
     * @param  list<ReportedJob>  $jobs
     * @return list<array{job: int, estimated: float, took: float}> of which both are known
     */
    private static function times(array $jobs): array
    {
        $times = [];
        foreach ($jobs as $job) {
            if ($job->estimated !== null && $job->took !== null) {
                $times[] = [
                    'job' => $job->number,
                    'estimated' => round($job->estimated, 1),
                    'took' => round($job->took, 1),
                ];
            }
        }

        return $times;
    }

    /** @return list<array{day: string, bytes: int}> what the bags took at the end of each day, of 24 hours */
    private function bytesByDay(\DateTimeImmutable $from, \DateTimeImmutable $until): array
    {
        $days = [];
        $last = min($until->getTimestamp(), $this->clock->now()->getTimestamp() + self::DAY);
        for ($end = $from->getTimestamp() + self::DAY; $end <= $last; $end += self::DAY) {
            $at = gmdate('Y-m-d H:i:s', $end);
            $there = Bag::query()->withoutGlobalScopes()
                ->where('created_at', '<', $at)
                ->where(static fn (Builder $q) => $q->whereNull('deleted_at')->orWhere('deleted_at', '>=', $at));
            $days[] = ['day' => gmdate('Y-m-d\TH:i:s\Z', $end - self::DAY), 'bytes' => Bag::bytesTaken($there)];
        }

        return $days;
    }
}
