<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\BenchJob;
use App\Models\ReturnRecord;
use App\Models\User;
use JadeStep\Core\Job\StepCode;

/** A month in figures, for leads: as counts, and as CSV. */
final class ReportTest extends FeatureTestCase
{
    public function test_an_ended_job_is_counted_with_its_way_minutes_and_losses_and_a_nightly_one_is_not(): void
    {
        $job = $this->jobAtTheLine();
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => $job->serial])->assertOk();
        $this->workUntil($job, StepCode::HandOver);
        $this->postJson("/api/v1/jobs/{$job->id}/hand-over", ['accept' => []])->assertOk();
        BenchJob::query()->create([
            'serial' => 'SKL-0057', 'state' => 'backed-up', 'opened_by' => $job->opened_by, 'intent' => 'back-up-only',
            'nightly' => true, 'ended_at' => now(),
        ]);
        ReturnRecord::query()->whereNot('bench_job_id', $job->id)->delete();
        $span = 'from='.rawurlencode(gmdate('Y-m-d\TH:i:s\Z', time() - 86_400 * 2)).'&until='
            .rawurlencode(gmdate('Y-m-d\TH:i:s\Z', time() + 86_400));
        $this->getJson("/api/v1/reports?{$span}")->assertForbidden();
        $this->signedIn(User::factory()->create(['role' => 'lead']));
        $told = $this->getJson("/api/v1/reports?{$span}")->assertOk();
        $job->refresh();

        self::assertSame(1, $told->json('jobs'));
        self::assertSame(['name' => 'Fenn 7', 'jobs' => 1, 'outcomes' => ['done' => 1]], $told->json('byModel.0'));
        self::assertSame('erased, lowered copy put back', $told->json('byWay.0.name'));
        self::assertEqualsWithDelta($job->takenRoute()->minutes->expected, $told->json('minutes.estimated'), 0.1);
        self::assertGreaterThan(0, $told->json('minutes.took'));
        self::assertSame([], $told->json('losses'));
        self::assertSame(
            ReturnRecord::query()->where('bench_job_id', $job->id)->count(),
            array_sum(array_column($told->json('lowered'), 'trials')),
        );
        self::assertCount(3, $told->json('bytes'));
        self::assertSame($job->safetyBag()?->bytes, $told->json('bytes.2.bytes'));

        $csv = $this->get("/api/v1/reports.csv?{$span}")->assertOk();
        $lines = array_map(str_getcsv(...), array_filter(explode("\r\n", (string) $csv->getContent())));
        self::assertCount(2, $lines);
        $line = array_combine($lines[0], $lines[1]);
        self::assertSame(
            [(string) $job->id, 'Fenn 7', 'done', ''],
            [$line['job'], $line['model'], $line['outcome'], $line['lost']],
        );
        self::assertStringNotContainsString(self::SERIAL, (string) $csv->getContent());
    }

    public function test_days_that_cannot_be_used_are_told_and_an_empty_month_is_empty(): void
    {
        $this->signedIn(User::factory()->create(['role' => 'lead']));
        $this->getJson('/api/v1/reports?from=2026-11-01T00:00:00Z&until=2026-10-01T00:00:00Z')
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.message', 'The report ends after it begins.');
        $this->getJson('/api/v1/reports')->assertUnprocessable();
        $empty = $this->getJson('/api/v1/reports?from=2020-01-01T00:00:00Z&until=2020-02-01T00:00:00Z')->assertOk();
        self::assertSame([0, [], [], 31], [
            $empty->json('jobs'), $empty->json('byModel'), $empty->json('losses'), count($empty->json('bytes')),
        ]);
    }
}
