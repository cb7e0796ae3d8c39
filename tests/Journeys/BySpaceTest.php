<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Facts\ChecksOfJob;
use App\Models\Setting;
use App\Models\User;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** Cloud or local, by the space that there is; and out of the beta programme afterwards. */
final class BySpaceTest extends JourneyTestCase
{
    private const IN_BETA = 'SKL-0102';

    protected bool $full = true;

    protected function tearDown(): void
    {
        Setting::query()->whereKey('storage')->delete();
        parent::tearDown();
    }

    public function test_a_shelf_without_room_says_so_and_the_stores_too_new_come_from_the_cloud(): void
    {
        $this->oldBag(self::SERIAL);
        $job = $this->openJob(self::IN_BETA, '9');
        $this->workUntil($job, StepCode::ChooseRoute);
        $cloud = $this->device(self::IN_BETA)['cloudBackup'];
        $this->signedIn()->putJson("/api/v1/jobs/{$job->id}/cloud", ['backup' => $cloud, 'syncs' => []])->assertOk();
        $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['newestInMajor' => 9]])->assertOk();
        $this->bagsBytes(1_048_576);
        $this->signedIn();
        $this->acceptRoute($job->refresh(), true);
        $this->workUntil($job, StepCode::CrossLine);
        $this->attestAll($job);
        app(ChecksOfJob::class)->keep($job->refresh());
        $shut = $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::IN_BETA])->assertConflict();
        self::assertStringContainsString('Free space on this bench', $shut->json('detail'));
        $this->bagsBytes(1_000_000_000_000);
        $this->signedIn();
        app(ChecksOfJob::class)->keep($job->refresh());
        $this->typeSerial($job->refresh());
        $this->workUntilProblem($job, StepCode::LowerCopy, 'return-held');

        $choices = array_column($this->getJson("/api/v1/jobs/{$job->id}/return")->json('choices'), null, 'backup');
        $lost = static fn (array $choice): array => array_column(
            array_filter($choice['kinds'], static fn (array $k): bool => $k['outcome'] === 'lost'),
            'kind',
        );
        self::assertContains('messages', $lost($choices[$job->safetyBag()?->id]));
        self::assertNotContains('messages', $lost($choices['cloud']), 'the cloud holds them from before the beta');
        $this->choose($job, 'cloud', $choices['cloud']['losesMore'])->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'cloud-return-wanted');
        $this->hand('cloud-return', self::IN_BETA);
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame('arrived', $this->getJson("/api/v1/jobs/{$job->id}/return")->json('cloud'));

        $care = fn (): array => array_column(
            $this->getJson("/api/v1/jobs/{$job->id}/hand-over")->json('aftercare'),
            'state',
            'code',
        );
        self::assertSame('open', $care()['leave-beta']);
        $this->putJson("/api/v1/jobs/{$job->id}/aftercare/leave-beta", ['done' => true])->assertOk();
        self::assertSame('attested', $care()['leave-beta']);
        $this->handOver($job);
    }

    private function bagsBytes(int $bytes): void
    {
        $this->signedIn(User::factory()->create(['role' => 'lead']))->putJson('/api/v1/storage', [
            'bagsFolder' => (string) config('jade.bags'),
            'packagesFolder' => (string) config('jade.packages'),
            'bagsBytes' => $bytes,
            'packagesBytes' => null,
        ])->assertOk();
    }
}
