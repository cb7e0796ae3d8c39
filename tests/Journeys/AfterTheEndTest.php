<?php

declare(strict_types=1);

namespace Tests\Journeys;

use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** One minor step by erasing, seen on the device; and what is still asked of a job when it has ended. */
final class AfterTheEndTest extends JourneyTestCase
{
    public function test_the_sheet_is_a_draft_until_the_hand_over_and_aftercare_is_ticked_for_thirty_days(): void
    {
        $job = $this->jobAtTheLine(self::SERIAL, ['exact' => '8.7.0']);
        $this->typeSerial($job);
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame(['8.7.0', '8G210'], [$this->device()['version'], $this->device()['build']]);

        $sheet = $this->getJson("/api/v1/jobs/{$job->id}/sheet")->assertOk()->json();
        self::assertSame(['open', null], [$sheet['job']['state'], $sheet['job']['endedBy']]);
        $backups = array_merge(...array_column($sheet['kept'], 'names'));
        self::assertSame(array_unique($backups), $backups, 'each backup is named once');
        self::assertCount(1, $backups);

        $this->handOver($job);
        $ended = $this->getJson("/api/v1/jobs/{$job->id}/sheet")->json('job');
        self::assertSame(['done', 'Teo Lind'], [$ended['state'], $ended['endedBy']]);
        $tick = fn (bool $done) => $this->putJson("/api/v1/jobs/{$job->id}/aftercare/usual-backup", ['done' => $done]);
        self::assertTrue($this->getJson("/api/v1/jobs/{$job->id}")->json('may.tick-aftercare.allowed'));
        $tick(true)->assertOk();
        $job->refresh()->update(['ended_at' => now()->subDays(29)]);
        $tick(false)->assertOk();
        $job->refresh()->update(['ended_at' => now()->subDays(30)]);
        self::assertFalse($this->getJson("/api/v1/jobs/{$job->id}")->json('may.tick-aftercare.allowed'));
        self::assertStringContainsString('30 days', $tick(true)->assertConflict()->json('detail'));
    }

    public function test_an_install_that_breaks_is_tried_again_and_still_arrives(): void
    {
        $job = $this->jobAtTheLine(self::SERIAL, ['exact' => '8.7.0']);
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/faults', [
            'kind' => 'work-fails',
            'work' => 'install',
            'phase' => 'write',
            'percent' => 40,
        ]);
        $this->typeSerial($job);
        $this->workUntil($job, StepCode::Install, StepState::Failed);
        $told = $this->getJson("/api/v1/jobs/{$job->id}")->json();
        self::assertSame(['broken', 'try-again'], [$told['position'], $told['now']['act']]);
        $this->postJson("/api/v1/jobs/{$job->id}/steps/install/retry")->assertOk();
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame('8.7.0', $this->device()['version']);
        self::assertSame(self::PHOTOS, $this->counts()['photos']);
        $this->handOver($job);
    }
}
