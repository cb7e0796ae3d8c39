<?php

declare(strict_types=1);

namespace Tests\Journeys;

use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** The device is started empty and looked at first; what comes in between is said, and the data comes back. */
final class LookedAtFirstTest extends JourneyTestCase
{
    private const LOCKED = 'SKL-0071';

    public function test_a_refused_backup_and_an_owner_lock_in_between(): void
    {
        $job = $this->openJob();
        $this->acceptRoute($job, true);
        $this->workUntil($job, StepCode::CrossLine);
        $this->attestAll($job);
        $this->typeSerial($job->refresh());
        $this->workUntilProblem($job, StepCode::LowerCopy, 'return-held');
        self::assertSame(
            ['looking-first', 'end-look'],
            [
                $this->getJson("/api/v1/jobs/{$job->id}")->json('position'),
                $this->getJson("/api/v1/jobs/{$job->id}")->json('now.act'),
            ],
        );
        self::assertArrayNotHasKey('photos', array_filter($this->counts()), 'it is empty, as new');

        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/faults', ['kind' => 'return-refused']);
        $this->deleteJson("/api/v1/jobs/{$job->id}/look-first")->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'backup-not-taken');
        $told = $this->getJson("/api/v1/jobs/{$job->id}")->json();
        self::assertStringContainsString('Nothing was changed on it', $told['now']['why']);

        $this->hand('owner-lock-on');
        $this->postJson("/api/v1/jobs/{$job->id}/steps/put-back/retry")->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'owner-lock-on');
        $this->hand('owner-lock-off');
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame(self::PHOTOS, $this->counts()['photos']);
        self::assertNotNull($job->loweredCopy((string) $job->safetyBag()?->id));
        $this->handOver($job);
    }

    public function test_the_lock_delay_is_waited_out_and_it_is_plugged_in_again(): void
    {
        $job = $this->openJob(self::LOCKED);
        $this->acceptRoute($job, true);
        $this->workUntil($job, StepCode::CrossLine);
        $this->attestAll($job);
        $line = $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::LOCKED]);
        self::assertStringContainsString('owner lock', strtolower((string) $line->assertConflict()->json('detail')));
        $this->hand('owner-lock-off', self::LOCKED);
        self::assertNotNull($this->device(self::LOCKED)['lockDelayEndsAt'], 'the delay has begun');
        $this->rig('POST', '/practice/devices/'.self::LOCKED.'/faults', ['kind' => 'not-recognised']);
        $this->lineOpens($job);
        $this->workUntilProblem($job, StepCode::Install, 'device-not-seen');
        $this->plug(self::LOCKED, null);
        $this->plug(self::LOCKED, '6');
        $this->workUntilProblem($job, StepCode::LowerCopy, 'return-held');
        $this->deleteJson("/api/v1/jobs/{$job->id}/look-first")->assertOk();
        $this->workUntil($job, StepCode::Prove, StepState::Done);

        $eye = $this->postJson("/api/v1/jobs/{$job->id}/by-eye")->assertOk()->json();
        self::assertSame('Tide Table', $eye['layout']['before']['dock'][2]['name']);
        $folder = $eye['layout']['after']['pages'][0][2];
        self::assertSame(['Ticket Scanner', 'Notes'], array_column($folder['apps'], 'name'));
        self::assertSame([1, 1], [count($eye['wallpaper']['before']), count($eye['wallpaper']['after'])]);
        self::assertSame([], array_filter(array_column($eye['photos']['before'], 'missing')), 'none is missing');
        self::assertNotSame('', $eye['photos']['after'][0]['modifiedAt']);
        $this->getJson("/api/v1/jobs/{$job->id}/by-eye/photos/{$eye['photos']['after'][0]['path']}")->assertOk();
        $this->getJson("/api/v1/jobs/{$job->id}/by-eye/messages/any.json")->assertConflict();
        $kinds = array_column(self::proofOf($job)['kinds'] ?? [], null, 'kind');
        self::assertSame(
            ['all', 'all', 'all'],
            [
                $kinds['home-layout']['happened'],
                $kinds['wallpaper']['happened'],
                $kinds['photos']['happened'],
            ],
        );
        $this->handOver($job);
    }
}
