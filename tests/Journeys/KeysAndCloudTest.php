<?php

declare(strict_types=1);

namespace Tests\Journeys;

use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** The keys lead into recovery mode, the data comes from the cloud, and what has to be signed in to again is named. */
final class KeysAndCloudTest extends JourneyTestCase
{
    private const WITH_CLOUD = 'SKL-0063';

    protected bool $hands = false;

    public function test_keys_cloud_and_sign_ins_with_a_cable_that_comes_out_on_the_way(): void
    {
        $job = $this->openJob(self::WITH_CLOUD);
        $this->workUntil($job, StepCode::ChooseRoute);
        $cloud = $this->device(self::WITH_CLOUD)['cloudBackup'];
        $this->putJson("/api/v1/jobs/{$job->id}/cloud", ['backup' => $cloud, 'syncs' => []])->assertOk();
        $this->acceptRoute($job->refresh(), true);
        $this->workUntil($job, StepCode::CrossLine);
        $this->attestAll($job);
        $this->typeSerial($job->refresh());
        $this->workUntilProblem($job, StepCode::EnterRecovery, 'recovery-wanted');
        self::assertSame('technician-at-device', $this->getJson("/api/v1/jobs/{$job->id}")->json('now.who'));
        $this->plug(self::WITH_CLOUD, null);
        $this->workUntilProblem($job, StepCode::EnterRecovery, 'device-not-seen');
        $this->plug(self::WITH_CLOUD, '3');
        $this->workUntilProblem($job, StepCode::EnterRecovery, 'recovery-wanted');
        $this->hands = true;
        $this->workUntilProblem($job, StepCode::LowerCopy, 'return-held');

        $choices = array_column($this->getJson("/api/v1/jobs/{$job->id}/return")->json('choices'), null, 'backup');
        $this->choose($job, 'cloud', $choices['cloud']['losesMore'])->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'cloud-return-wanted');
        $this->hand('cloud-return', self::WITH_CLOUD);
        $this->workUntilProblem($job, StepCode::PutBack, 'cloud-return-partly');
        $this->putJson("/api/v1/jobs/{$job->id}/overlays/cloud", ['state' => 'attested'])->assertOk();
        $this->workUntil($job, StepCode::Prove, StepState::Done);

        $points = array_column($this->getJson("/api/v1/jobs/{$job->id}/hand-over")->json('aftercare'), null, 'code');
        self::assertContains('bank and mail', $points['sign-in-again']['names']);
        self::assertContains('Tide Table', $points['sign-in-again']['names']);
        $eye = $this->postJson("/api/v1/jobs/{$job->id}/by-eye")->assertOk()->json('layout.before.pages.0.2.apps');
        self::assertSame(
            ['Ticket Scanner' => true, 'Watch Roster' => true, 'Notes' => true],
            array_column($eye, 'missing', 'name'),
            'this cloud backup is from before the layout was made',
        );
        $this->handOver($job);
    }
}
