<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Models\BenchJob;
use App\Models\User;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\Position;
use JadeStep\Core\Job\StepCode;

/** What ended too early is opened again by a lead, as long as nothing has happened to the device since. */
final class OpenedAgainTest extends JourneyTestCase
{
    public function test_a_job_that_was_left_goes_on_with_a_new_backup(): void
    {
        $job = $this->openJob();
        $this->acceptRoute($job);
        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertOk();
        $this->postJson("/api/v1/jobs/{$job->id}/reopen")->assertForbidden();

        $this->asLead();
        $told = $this->postJson("/api/v1/jobs/{$job->id}/reopen")->assertOk();
        self::assertSame(['open', 'safeguarding'], [$told->json('state'), $told->json('position')]);
        $this->workUntil($job, StepCode::CrossLine);

        self::assertSame(self::SERIAL, $job->refresh()->held_serial);
        self::assertNull($job->ended_at);
    }

    public function test_a_device_that_was_handed_over_too_early_is_handed_over_again(): void
    {
        $job = $this->jobAtTheLine();
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL])->assertOk();
        $this->workUntil($job, StepCode::HandOver);
        $proof = $this->getJson("/api/v1/jobs/{$job->id}")->json('proof');
        $this->postJson("/api/v1/jobs/{$job->id}/hand-over", ['accept' => []])->assertOk();

        $this->asLead();
        $told = $this->postJson("/api/v1/jobs/{$job->id}/reopen")->assertOk();
        self::assertSame([Position::Compared->value, $proof], [$told->json('position'), $told->json('proof')]);
        self::assertSame('hand-over', $told->json('now.act'));
        $this->postJson("/api/v1/jobs/{$job->id}/reopen")->assertConflict();
        $this->postJson("/api/v1/jobs/{$job->id}/hand-over", ['accept' => []])->assertOk();
        self::assertSame(JobState::Done, $job->refresh()->state);
        self::assertContains(
            'Opened the job again',
            array_column($this->getJson('/api/v1/journal?serial='.self::SERIAL)->json('acts'), 'words'),
        );
    }

    public function test_where_another_job_has_had_the_device_or_a_day_is_over_it_stays_ended(): void
    {
        $job = $this->openJob();
        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertOk();
        $next = BenchJob::query()->findOrFail($this->openJob()->id);
        $this->asLead();
        self::assertStringContainsString(
            'Another job has this device',
            $this->postJson("/api/v1/jobs/{$job->id}/reopen")->assertConflict()->json('detail'),
        );
        $this->postJson("/api/v1/jobs/{$next->id}/leave")->assertOk();
        $next->refresh()->update(['ended_at' => now()->subDay()]);
        self::assertStringContainsString(
            'within a day',
            $this->postJson("/api/v1/jobs/{$next->id}/reopen")->assertConflict()->json('detail'),
        );
    }

    public function test_a_backup_that_was_taken_meanwhile_changed_nothing_on_the_device(): void
    {
        $job = $this->openJob();
        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertOk();
        $this->backedUp($this->backUpOnly());
        $this->asLead();

        $this->postJson("/api/v1/jobs/{$job->id}/reopen")->assertOk()->assertJsonPath('state', 'open');
        self::assertSame(self::SERIAL, $job->refresh()->held_serial);
    }

    private function asLead(): void
    {
        $this->signedIn(User::factory()->create(['role' => 'lead']));
    }
}
