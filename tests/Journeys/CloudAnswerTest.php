<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Models\BenchJob;
use Illuminate\Testing\TestResponse;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use Symfony\Component\HttpFoundation\Response;

/** The owner's cloud answers: all has arrived, a part of it, or the device refuses it; each leads on. */
final class CloudAnswerTest extends JourneyTestCase
{
    private const REFUSED = 'SKL-0110';

    private const IN_PART = 'SKL-0118';

    public function test_a_refused_cloud_backup_leads_on_to_the_local_one(): void
    {
        $job = $this->lookedAt(self::REFUSED);
        $cloud = $this->cloudOf($job);
        self::assertContains('photos', $cloud['losesMore'], 'what a newer cloud backup may not bring is asked by name');
        $this->choose($job, 'cloud', $cloud['losesMore'])->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'cloud-return-wanted');
        $this->speak($job, 'attested')->assertConflict();

        $this->hand('cloud-return', self::REFUSED);
        $this->workUntilProblem($job, StepCode::PutBack, 'cloud-return-refused');
        $told = $this->getJson("/api/v1/jobs/{$job->id}")->json();
        self::assertSame(Act::ChooseReturn->value, $told['now']['act']);
        self::assertStringContainsString('newer version than 8.7.0', $told['now']['why']);
        $offer = $this->getJson("/api/v1/jobs/{$job->id}/return")->json();
        self::assertSame(['refused', $job->safetyBag()?->id], [$offer['cloud'], $offer['proposed']]);
        $reasons = array_column($offer['choices'], 'reasons', 'backup');
        self::assertSame(['device-refused'], array_column($reasons['cloud'], 'code'));
        $this->choose($job, 'cloud')->assertConflict();

        $this->choose($job, $offer['proposed'])->assertOk();
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame(self::PHOTOS, $this->counts(self::REFUSED)['photos']);
        $this->handOver($job);
        self::assertNull($this->getJson("/api/v1/jobs/{$job->id}/return")->json('cloud'));
    }

    public function test_where_the_device_tells_nothing_a_person_says_that_it_was_refused(): void
    {
        $job = $this->lookedAt(self::REFUSED);
        $cloud = $this->cloudOf($job);
        $this->choose($job, 'cloud', $cloud['losesMore'])->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'cloud-return-wanted');

        $this->speak($job, 'refused')->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'cloud-return-refused');
        self::assertSame(StepState::Failed, $job->step(StepCode::PutBack)->state);

        $this->choose($job, null, array_column(Kind::cases(), 'value'))->assertOk();
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        $verdict = $this->getJson("/api/v1/jobs/{$job->id}")->json('verdict');
        self::assertSame('as-named', $verdict['code'], 'the losses are accepted by name');
        $this->handOver($job);
    }

    public function test_a_part_is_said_and_the_rest_comes_from_the_local_backup(): void
    {
        $job = $this->lookedAt(self::IN_PART);
        $cloud = $this->cloudOf($job);
        $this->choose($job, 'cloud', $cloud['losesMore'])->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'cloud-return-wanted');
        $this->hand('cloud-return', self::IN_PART);
        $this->workUntilProblem($job, StepCode::PutBack, 'cloud-return-partly');
        $why = $this->getJson("/api/v1/jobs/{$job->id}")->json('now.why');
        self::assertStringContainsString('2 of '.self::PHOTOS.' in photos', $why);
        self::assertStringContainsString(
            'did not refuse it',
            $this->speak($job, 'refused')->assertConflict()->json('detail'),
            'the device\'s own listing beats a person\'s word',
        );

        $this->speak($job, 'attested')->assertOk();
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame('partly', $this->getJson("/api/v1/jobs/{$job->id}/return")->json('cloud'));
        $missing = $this->getJson("/api/v1/jobs/{$job->id}/missing")->json('items');
        $photos = array_values(array_filter($missing, static fn (array $i): bool => $i['kind'] === 'photos'));
        self::assertCount(1, $photos);
        $this->postJson("/api/v1/jobs/{$job->id}/missing", ['items' => [
            ['kind' => 'photos', 'path' => $photos[0]['path'], 'bag' => $photos[0]['bags'][0]['id']],
        ]])->assertOk();
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame(self::PHOTOS, $this->counts(self::IN_PART)['photos']);
        $this->handOver($job);
    }

    /** A job past its install whose device is looked at as new, with its cloud backup told of. */
    private function lookedAt(string $serial): BenchJob
    {
        $job = $this->openJob($serial, '9');
        $this->workUntil($job, StepCode::ChooseRoute);
        $cloud = array_diff_key($this->device($serial)['cloudBackup'], ['share' => 1]);
        $this->putJson("/api/v1/jobs/{$job->id}/cloud", ['backup' => $cloud, 'syncs' => []])->assertOk();
        $this->acceptRoute($job->refresh(), true);
        $this->workUntil($job, StepCode::CrossLine);
        $this->attestAll($job);
        $this->typeSerial($job->refresh());
        $this->workUntilProblem($job, StepCode::LowerCopy, 'return-held');

        return $job->refresh();
    }

    /** @return array<string, mixed> as it is offered */
    private function cloudOf(BenchJob $job): array
    {
        $choices = $this->getJson("/api/v1/jobs/{$job->id}/return")->json('choices');

        return array_column($choices, null, 'backup')['cloud'];
    }

    /** @return TestResponse<Response> */
    private function speak(BenchJob $job, string $state): TestResponse
    {
        return $this->putJson("/api/v1/jobs/{$job->id}/overlays/cloud", ['state' => $state]);
    }
}
