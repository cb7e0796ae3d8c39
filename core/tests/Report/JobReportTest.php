<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Report;

use JadeStep\Core\Exchange\ReportCsv;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Report\JobReport;
use JadeStep\Core\Report\ReportedJob;
use JadeStep\Core\Report\WayTaken;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\TestCase;

final class JobReportTest extends TestCase
{
    public function test_a_month_is_counted_by_model_way_and_outcome(): void
    {
        $report = JobReport::of(self::jobs(), [['photos', true], ['photos', false], ['notes', true]]);

        self::assertSame(4, $report->jobs);
        self::assertSame(
            [
                'Fenn 7' => ['done' => 1, 'done-with-losses' => 1],
                'Fenn 6' => ['abandoned' => 1],
                'Wick 3' => ['done' => 1],
            ],
            $report->byModel,
        );
        self::assertSame(
            [
                'put-back-lowered' => ['done' => 1, 'done-with-losses' => 1],
                'in-place' => ['done' => 1],
                'no-route' => ['abandoned' => 1],
            ],
            $report->byWay,
        );
        self::assertSame(['done' => 2, 'done-with-losses' => 1, 'abandoned' => 1], $report->byOutcome);
        self::assertSame(['estimated' => 90.0, 'took' => 75.5, 'jobs' => 2], $report->minutes);
        self::assertSame(
            ['photos' => ['jobs' => 1, 'items' => 12], 'notes' => ['jobs' => 2, 'items' => 3]],
            $report->losses,
        );
        self::assertSame([[1, 1], [1, 2]], array_map(
            static fn ($p): array => [$p->successes, $p->trials],
            array_values($report->lowered),
        ));
    }

    public function test_a_month_without_jobs_counts_nothing(): void
    {
        $report = JobReport::of([], []);
        self::assertSame(
            [0, [], [], ['estimated' => 0.0, 'took' => 0.0, 'jobs' => 0], [], []],
            [$report->jobs, $report->byModel, $report->byOutcome, $report->minutes, $report->losses, $report->lowered],
        );
    }

    public function test_as_csv_each_job_is_a_line_and_a_name_that_a_spreadsheet_would_run_is_inert(): void
    {
        $lines = explode("\r\n", ReportCsv::write(array_slice(self::jobs(), 1, 1)));
        self::assertSame(
            'job,endedAt,model,fromVersion,toVersion,way,outcome,minutesEstimated,minutesTook,lost,endedBy',
            $lines[0],
        );
        self::assertSame(
            '2,2026-11-03T10:00:00Z,"Fenn 7",9.3.0,8.7.0,"erased, lowered copy put back","done, with named losses",,,'
                .'"photos 12, notes 1",\'=Maren',
            $lines[1],
        );
    }

    /** @return list<ReportedJob> */
    private static function jobs(): array
    {
        $job = static fn (
            int $n,
            string $model,
            WayTaken $way,
            JobState $state,
            ?float $est,
            ?float $took,
            array $lost,
        ) => new ReportedJob(
            $n, Rfc3339::parse('2026-11-03T10:00:00Z'), $model, '9.3.0', '8.7.0', $way, $state, $est, $took, $lost,
            '=Maren',
        );

        return [
            $job(1, 'Fenn 7', WayTaken::PutBackLowered, JobState::Done, 60.0, 50.5, ['notes' => 2]),
            $job(
                2,
                'Fenn 7',
                WayTaken::PutBackLowered,
                JobState::DoneWithLosses,
                null,
                null,
                ['photos' => 12, 'notes' => 1],
            ),
            $job(3, 'Wick 3', WayTaken::InPlace, JobState::Done, 30.0, 25.0, []),
            $job(4, 'Fenn 6', WayTaken::NoRoute, JobState::Abandoned, 20.0, null, []),
        ];
    }
}
