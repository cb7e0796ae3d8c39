<?php

declare(strict_types=1);

namespace JadeStep\Core\Report;

use JadeStep\Core\Evidence\Proportion;

/** What a lead is asked at the end of a month, counted from its ended jobs. */
final readonly class JobReport
{
    /**
     * @param  array<string, array<string, int>>  $byModel  jobs by outcome, the most frequent model first
     * @param  array<string, array<string, int>>  $byWay  jobs by outcome, by what sort of route they took
     * @param  array<string, int>  $byOutcome
     * @param  array{estimated: float, took: float, jobs: int}  $minutes  of the jobs of which both are known
     * @param  array<string, array{jobs: int, items: int}>  $losses  by kind, the most items first
     * @param  array<string, Proportion>  $lowered  by kind: how often it came back whole from a lowered copy
     */
    private function __construct(
        public int $jobs,
        public array $byModel,
        public array $byWay,
        public array $byOutcome,
        public array $minutes,
        public array $losses,
        public array $lowered,
    ) {
    }

    /**
     * @param  list<ReportedJob>  $jobs
     * @param  list<array{string, bool}>  $lowered  a kind, and whether it came back from a lowered copy
     */
    public static function of(array $jobs, array $lowered): self
    {
        $outcomes = array_map(static fn (ReportedJob $j): string => $j->outcome->value, $jobs);

        return new self(
            count($jobs),
            self::by($jobs, static fn (ReportedJob $j): string => $j->model),
            self::by($jobs, static fn (ReportedJob $j): string => $j->way->value),
            array_count_values($outcomes),
            self::minutes($jobs),
            self::losses($jobs),
            self::lowered($lowered),
        );
    }

    /**
     * @param  list<ReportedJob>  $jobs
     * @param  \Closure(ReportedJob): string  $what
     * @return array<string, array<string, int>>
     */
    private static function by(array $jobs, \Closure $what): array
    {
        $counts = [];
        foreach ($jobs as $job) {
            $of = $what($job);
            $counts[$of][$job->outcome->value] = ($counts[$of][$job->outcome->value] ?? 0) + 1;
        }
        ksort($counts, SORT_STRING);
        uasort($counts, static fn (array $a, array $b): int => array_sum($b) <=> array_sum($a));

        return $counts;
    }

    /**
     * @param  list<ReportedJob>  $jobs
     * @return array{estimated: float, took: float, jobs: int}
     */
    private static function minutes(array $jobs): array
    {
        $sum = ['estimated' => 0.0, 'took' => 0.0, 'jobs' => 0];
        foreach ($jobs as $job) {
            if ($job->estimated !== null && $job->took !== null) {
                $sum['estimated'] += $job->estimated;
                $sum['took'] += $job->took;
                $sum['jobs']++;
            }
        }

        return $sum;
    }

    /**
     * @param  list<ReportedJob>  $jobs
     * @return array<string, array{jobs: int, items: int}>
     */
    private static function losses(array $jobs): array
    {
        $losses = [];
        foreach ($jobs as $job) {
            foreach ($job->lost as $kind => $items) {
                $so = $losses[$kind] ?? ['jobs' => 0, 'items' => 0];
                $losses[$kind] = ['jobs' => $so['jobs'] + 1, 'items' => $so['items'] + $items];
            }
        }
        ksort($losses, SORT_STRING);
        uasort($losses, static fn (array $a, array $b): int => $b['items'] <=> $a['items']);

        return $losses;
    }

    /**
     * @param  list<array{string, bool}>  $lowered
     * @return array<string, Proportion>
     */
    private static function lowered(array $lowered): array
    {
        $counts = [];
        foreach ($lowered as [$kind, $worked]) {
            [$well, $all] = $counts[$kind] ?? [0, 0];
            $counts[$kind] = [$well + ($worked ? 1 : 0), $all + 1];
        }
        ksort($counts, SORT_STRING);

        return array_map(static fn (array $c): Proportion => Proportion::of($c[0], $c[1]), $counts);
    }
}
