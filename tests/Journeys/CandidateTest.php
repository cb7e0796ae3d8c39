<?php

declare(strict_types=1);

namespace Tests\Journeys;

use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** Only a candidate is signed for erasing: an encrypted backup, the candidate, and a step up in place. */
final class CandidateTest extends JourneyTestCase
{
    private const TABLET = 'SKT-0011';

    private const PASSPHRASE = 'slack water at the north pier';

    public function test_the_candidate_leads_to_the_release_and_the_encrypted_backup_comes_back(): void
    {
        $job = $this->openJob(self::TABLET);
        $this->workUntil($job, StepCode::ChooseRoute);
        $encrypted = ['encryption' => 'encrypted', 'sideExports' => []];
        $this->putJson("/api/v1/jobs/{$job->id}/backup", $encrypted)->assertOk();
        $this->acceptRoute($job->refresh());
        $legs = self::routeOf($job->refresh())['legs'];
        self::assertSame(
            [['erase-install', 'candidate'], ['in-place-update', 'release']],
            array_map(static fn (array $l): array => [$l['move'], $l['to']['channel']], $legs),
        );
        $this->workUntilProblem($job, StepCode::BackUp, 'passphrase-wanted');
        $this->give($job, self::PASSPHRASE, self::PASSPHRASE);
        $this->workUntil($job, StepCode::CrossLine);
        $this->attestAll($job);
        $this->practice('brightmere', ['refused' => ['8H95']]);
        $this->typeSerial($job->refresh());
        $this->workUntil($job, StepCode::Install, StepState::Failed);
        self::assertSame('8.8.0-rc.1', $this->device(self::TABLET)['version'], 'the first leg is done');
        $told = $this->getJson("/api/v1/jobs/{$job->id}")->json('now');
        self::assertStringContainsString('The vendor gave no permit', $told['why']);

        $this->practice('brightmere', null);
        $this->postJson("/api/v1/jobs/{$job->id}/steps/install/retry")->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'passphrase-wanted');
        $this->give($job, self::PASSPHRASE);
        $this->workUntil($job, StepCode::Prove, StepState::Done);

        $now = $this->device(self::TABLET);
        self::assertSame(['8.8.0', '8H95'], [$now['version'], $now['build']]);
        $kinds = array_column(self::proofOf($job)['kinds'] ?? [], null, 'kind');
        self::assertSame(['all', 'all'], [$kinds['photos']['happened'], $kinds['health']['happened']]);
        $this->handOver($job);
    }
}
