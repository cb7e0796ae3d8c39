<?php

declare(strict_types=1);

namespace Tests\Journeys;

use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** The right one of several backups is told by its time; the wrong one can be taken back by taking the right one. */
final class RightBackupTest extends JourneyTestCase
{
    public function test_the_one_of_five_days_ago_is_put_back_after_an_older_one_was_taken_by_mistake(): void
    {
        $older = $this->oldBag(self::SERIAL, ['daysAgo' => 60, 'madeOn' => '8.6.0']);
        $wanted = $this->oldBag(self::SERIAL, ['daysAgo' => 5, 'madeOn' => '8.7.0']);
        $job = $this->jobAtTheLine();
        $this->putJson("/api/v1/jobs/{$job->id}/look-first")->assertOk();
        $this->typeSerial($job);
        $this->workUntilProblem($job, StepCode::LowerCopy, 'return-held');

        $choices = $this->getJson("/api/v1/jobs/{$job->id}/return")->json('choices');
        $times = array_column($choices, 'takenAt', 'backup');
        self::assertLessThan($times[$wanted->id], $times[$older->id]);
        self::assertLessThan($times[$job->safetyBag()?->id], $times[$wanted->id]);
        $less = array_column($choices, 'losesMore', 'backup');
        $this->choose($job, $older->id, [])->assertConflict();
        $this->choose($job, $older->id, $less[$older->id])->assertOk();
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        $few = $this->counts()['photos'] ?? 0;

        $this->choose($job->refresh(), $wanted->id, $less[$wanted->id])->assertOk();
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame($wanted->id, $this->evidenceOf('put-back-done')['backup'] ?? null);
        self::assertGreaterThanOrEqual($few, $this->counts()['photos']);
        self::assertSame($wanted->counts['photos'] ?? 0, $this->counts()['photos']);
        $this->handOver($job);
    }
}
