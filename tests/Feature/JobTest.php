<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\BenchJob;
use App\Steps\LiveReadings;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Seal;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

final class JobTest extends FeatureTestCase
{
    public function test_a_whole_crossing_ends_with_nothing_missing(): void
    {
        $job = $this->jobAtTheLine();
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => ' skl-0042 '])->assertOk();
        $this->workUntil($job, StepCode::HandOver);

        self::assertSame(
            [0, true, '9.3.0', '8.7.0'],
            [
                $job->proof?->missing(),
                self::proofOf($job)['nothingLost'],
                self::proofOf($job)['before']['version'],
                self::proofOf($job)['after']['version'],
            ],
        );
        self::assertSame(
            ['photos' => self::PHOTOS, 'messages' => 1, 'contacts' => 5],
            array_intersect_key(
                array_replace(
                    ['photos' => 0, 'messages' => 0, 'contacts' => 0],
                    array_column(self::proofOf($job)['kinds'], 'same', 'kind'),
                ),
                ['photos' => 1, 'messages' => 1, 'contacts' => 1],
            ),
        );
        self::assertSame(
            [
                [
                    'path' => 'system/about.json',
                    'rule' => 'system-settings',
                    'words' => 'The device writes its own system settings.',
                ],
            ],
            array_column(self::proofOf($job)['kinds'], 'changed', 'kind')['settings'],
        );
        self::assertSame('8.7.0', $this->rig('GET', '/devices/'.self::SERIAL)['version']);
        $this->assertOriginalIsSealedAndCopyLowered($job);

        $this->postJson("/api/v1/jobs/{$job->id}/hand-over")->assertOk()->assertJsonPath('state', 'done');
        self::assertSame([JobState::Done, null], [$job->refresh()->state, $job->held_serial]);
        self::assertSame([], $job->steps->reject(static fn ($s): bool => $s->state === StepState::Done)->all());
    }

    private function assertOriginalIsSealedAndCopyLowered(BenchJob $job): void
    {
        $copy = $job->loweredCopy((string) $job->safetyBag()?->id);
        self::assertNotNull($copy);
        self::assertTrue(BagVerifier::verify($this->bagFolder($job))->isSound());
        self::assertTrue(Seal::isClosed($this->bagFolder($job)));
        $description = BagReader::open(self::system()->folder.'/bags/'.$copy->id)->description();
        self::assertSame(
            ['8.7.0', '9.3.0', $job->safetyBag()?->id],
            [(string) $description->declaredVersion, (string) $description->madeOn, $description->loweredFrom],
        );
    }

    public function test_one_device_has_one_job(): void
    {
        $this->openJob();

        $this->postJson('/api/v1/jobs', ['serial' => self::SERIAL])
            ->assertConflict()
            ->assertJsonPath('code', 'device-held');
        self::assertSame(1, BenchJob::query()->count());
    }

    public function test_a_device_that_is_not_there_opens_no_job(): void
    {
        $this->signedIn()
            ->postJson('/api/v1/jobs', ['serial' => 'SKL-9999'])
            ->assertConflict()
            ->assertJsonPath('code', 'no-such-device');
        $this->postJson('/api/v1/jobs', ['serial' => '../etc'])
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.pointer', '/serial');
        self::assertSame(0, BenchJob::query()->count());
    }

    public function test_a_left_job_frees_its_device_and_leaves_it_as_it_was(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);

        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertOk()->assertJsonPath('state', 'abandoned');
        $this->postJson('/api/v1/jobs', ['serial' => self::SERIAL])->assertCreated();
        self::assertSame('9.3.0', $this->rig('GET', '/devices/'.self::SERIAL)['version']);
    }

    public function test_the_goal_can_be_changed_until_a_route_is_taken(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);

        $blocked = $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['exact' => '8.6.0']])->assertOk();
        self::assertSame(
            ['blocked', '8.7.0'],
            [$blocked->json('plan.verdict'), $blocked->json('plan.nearest.version')],
        );
        self::assertSame('window-closed', $blocked->json('plan.rejected.0.reasons.0.code'));
        $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['exact' => 'eight']])
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.pointer', '/goal/exact');
        $this->putJson("/api/v1/jobs/{$job->id}/goal", [
            'goal' => ['exact' => '8.6.0', 'newestInMajor' => 8],
        ])->assertUnprocessable();
        $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['newestInMajor' => 8]])
            ->assertOk()
            ->assertJsonPath('plan.verdict', 'reachable');

        $this->acceptRoute($job);
        $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['newestInMajor' => 8]])
            ->assertConflict()
            ->assertJsonPath('code', 'not-any-more');
    }

    public function test_a_route_that_is_not_on_offer_is_not_taken(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);

        $this->putJson("/api/v1/jobs/{$job->id}/route", [
            'route' => 'r1',
            'build' => '8F190',
            'accept' => ['pairingLost' => [], 'appsUnavailable' => []],
        ])
            ->assertConflict()
            ->assertJsonPath('code', 'plan-changed');
        self::assertNull($job->refresh()->route);
    }

    public function test_a_permit_that_is_refused_brings_the_job_back_to_choose_with_its_backup_kept(): void
    {
        $job = $this->jobAtTheLine();
        $this->practice('brightmere', ['refused' => ['8G210']]);
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL])->assertOk();
        $this->workUntil($job, StepCode::ChooseRoute);

        self::assertSame('window-closed', $job->step(StepCode::ChooseRoute)->problem->reason ?? null);
        self::assertStringContainsString(
            'Nothing was erased',
            $job->step(StepCode::ChooseRoute)->problem->detail ?? '',
        );
        self::assertSame(
            [null, null, BagState::Sealed],
            [$job->line_crossed_at, $job->route, $job->safetyBag()?->state],
        );
        self::assertSame(StepState::Done, $job->step(StepCode::SealBackup)->state);
        $device = $this->rig('GET', '/devices/'.self::SERIAL);
        self::assertSame(
            ['9.3.0', self::PHOTOS],
            [$device['version'], array_column($device['kinds'], 'items', 'kind')['photos'] ?? null],
        );
    }

    public function test_a_permit_refused_after_an_install_had_begun_never_claims_that_nothing_was_erased(): void
    {
        $this->hands = false;
        $job = $this->jobAtTheLine();
        $this->practice('brightmere', ['refused' => ['8G210']]);
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL])->assertOk();
        $this->workUntil($job, StepCode::EnterRecovery, StepState::Ready);
        $job->update(['install_begun_at' => now()]);
        $this->hands = true;
        $this->workUntil($job, StepCode::Install, StepState::Failed);

        $problem = $job->step(StepCode::Install)->problem;
        self::assertSame(['permit-refused', 'window-closed'], [$problem?->code->value, $problem?->reason]);
        self::assertStringNotContainsString('Nothing was erased', $problem->detail ?? '');
        self::assertNotNull($job->line_crossed_at);
        self::assertSame(StepState::Done, $job->step(StepCode::ChooseRoute)->state);

        $this->practice('brightmere', null);
        $this->postJson("/api/v1/jobs/{$job->id}/steps/install/retry")->assertOk();
        $this->workUntil($job, StepCode::HandOver);
        self::assertSame(0, $job->proof?->missing());
    }

    public function test_the_bench_tells_when_the_device_link_is_silent(): void
    {
        app(LiveReadings::class)->lookAtPorts();
        $this->signedIn()
            ->getJson('/api/v1/bench')
            ->assertOk()
            ->assertJsonPath('benches.0.link', 'up')
            ->assertJsonPath('benches.0.ports.0.serial', self::SERIAL)
            ->assertJsonPath('benches.0.ports.9.occupied', false);
        config(['jade.device_link' => 'http://127.0.0.1:9']);
        app(LiveReadings::class)->lookAtPorts();

        $this->getJson('/api/v1/bench')
            ->assertOk()
            ->assertJsonPath('benches.0.link', 'silent')
            ->assertJsonPath('benches.0.ports.0.occupied', false)
            ->assertJsonPath('open', []);
        $this->postJson('/api/v1/jobs', ['serial' => self::SERIAL])
            ->assertServiceUnavailable()
            ->assertJsonPath('code', 'link-lost');
    }
}
