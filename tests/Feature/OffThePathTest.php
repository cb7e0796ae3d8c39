<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\HeldPassphrase;
use App\Models\User;
use App\Steps\LiveReadings;
use JadeStep\Core\Job\Position;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use PHPUnit\Framework\Attributes\DataProvider;

/** Off the straight path: what people may do at the wrong moment, and what the job says and offers then. */
final class OffThePathTest extends FeatureTestCase
{
    public function test_nobody_deletes_what_an_open_job_rests_on_though_an_older_verified_bag_is_there(): void
    {
        $this->hands = false;
        $job = $this->jobAtTheLine();
        $own = Bag::query()->findOrFail($job->safetyBag()?->id);
        $this->oldBag(self::SERIAL, ['daysAgo' => 3]);
        $this->cross($job);

        $refused = $this->signedIn(User::factory()->create(['role' => 'lead']))->deleteJson(
            "/api/v1/shelf/{$own->id}",
            ['reason' => 'an older one is there'],
        );

        $refused->assertConflict()->assertJsonPath('code', 'rested-on');
        self::assertStringContainsString("The open job {$job->id} of SKL-0042 rests on it", $refused->json('detail'));
        self::assertDirectoryExists($this->bagFolder($job));
        self::assertArrayHasKey($own->id, $this->getJson('/api/v1/shelf')->json('restedOn'));
    }

    public function test_the_base_is_read_once_more_before_the_device_is_told_to_erase(): void
    {
        $this->hands = false;
        $job = $this->jobAtTheLine();
        $this->cross($job);
        exec(
            'chmod -R u+w '
                .escapeshellarg($this->bagFolder($job))
                .' && rm -rf '
                .escapeshellarg($this->bagFolder($job)),
        );
        $this->hands = true;
        $this->workUntil($job, StepCode::CrossLine);

        self::assertStringStartsWith('base-', $job->step(StepCode::CrossLine)->problem->code->value ?? '');
        self::assertNull($job->line_crossed_at, 'nothing was written, and so the line is closed again');
        $device = $this->rig('GET', '/devices/'.self::SERIAL);
        self::assertSame(
            ['9.3.0', self::PHOTOS],
            [$device['version'], array_column($device['kinds'], 'items', 'kind')['photos'] ?? self::PHOTOS],
        );
        self::assertNull($job->refresh()->erase_begun_at);
        $now = $this->getJson("/api/v1/jobs/{$job->id}")
            ->assertOk()
            ->json('now');
        self::assertNotNull(
            $now['act'],
            'a base that is missing names what to do next: '.json_encode($now, JSON_THROW_ON_ERROR),
        );
    }

    public function test_a_pairing_that_is_taken_back_is_asked_for_again(): void
    {
        $job = $this->jobAtTheLine();
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/answers', ['answer' => 'pairing-withdrawn']);
        app(LiveReadings::class)->lookAtDevices();

        $this->getJson("/api/v1/jobs/{$job->id}")
            ->assertJsonPath('now.act', 'ask-to-pair')
            ->assertJsonPath('now.who', 'technician-at-device');
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL])->assertConflict();
        $this->postJson("/api/v1/jobs/{$job->id}/pair")->assertOk();
        $this->workUntil($job, StepCode::Pair, StepState::Done);
        app(LiveReadings::class)->lookAtDevices();
        $this->getJson("/api/v1/jobs/{$job->id}")->assertJsonPath('now.act', 'cross-line');
    }

    public function test_a_device_that_wants_its_passcode_before_it_pairs_again_has_that_asked_for(): void
    {
        $job = $this->openJob();
        $this->acceptRoute($job);
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/faults', ['kind' => 'passcode-wanted']);
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/answers', ['answer' => 'pairing-withdrawn']);
        $this->workUntilProblem($job, StepCode::BackUp, 'passcode-wanted');

        $now = $this->getJson("/api/v1/jobs/{$job->id}")->json('now');
        self::assertStringContainsString('its pairing was taken back', $now['why']);
        self::assertStringContainsString('enter it on the device, never here', $now['why']);
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/answers', ['answer' => 'passcode']);
        $this->workUntil($job, StepCode::CrossLine);
    }

    /** @param  array<string, mixed>  $body */
    #[DataProvider('actsOnAnEndedJob')]
    public function test_an_ended_job_takes_nothing_more_and_keeps_no_passphrase(
        string $method,
        string $path,
        array $body,
    ): void {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertOk();
        $before = $job->refresh()->getAttributes();

        $this->json($method, "/api/v1/jobs/{$job->id}/{$path}", $body)
            ->assertConflict()
            ->assertJsonPath('code', 'job-ended');

        self::assertSame($before, $job->refresh()->getAttributes());
        self::assertSame(0, HeldPassphrase::query()->count());
    }

    /** @return iterable<string, array{string, string, array<string, mixed>}> */
    public static function actsOnAnEndedJob(): iterable
    {
        yield 'passphrase' => [
            'POST',
            'passphrase',
            ['passphrase' => 'slack water at noon', 'again' => 'slack water at noon'],
        ];
        yield 'attestation' => ['PUT', 'attestations/passcode-known', []];
        yield 'cloud' => ['PUT', 'cloud', ['backup' => null, 'syncs' => []]];
        yield 'goal' => ['PUT', 'goal', ['goal' => ['newestInMajor' => 8]]];
        yield 'backup' => ['PUT', 'backup', ['encryption' => 'plain', 'sideExports' => []]];
        yield 'flag' => ['DELETE', 'flag', []];
        yield 'look first' => ['PUT', 'look-first', []];
        yield 'line' => ['POST', 'line', ['serial' => self::SERIAL]];
    }

    public function test_a_goal_in_the_products_own_spelling_is_planned_and_a_riddle_changes_nothing(): void
    {
        $job = $this->openJob('SKL-0102', '9');
        $this->workUntil($job, StepCode::ChooseRoute);

        $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['exact' => '10.0 beta 2']])
            ->assertOk()
            ->assertJsonPath('goal.exact', '10.0.0-beta.2');
        $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['words' => 'abc']])
            ->assertUnprocessable()
            ->assertJsonPath(
                'errors.0.message',
                static fn (string $m): bool => str_contains($m, 'is not a goal. Write one of'),
            );
        $this->getJson("/api/v1/jobs/{$job->id}")->assertJsonPath('goal.exact', '10.0.0-beta.2');
    }

    public function test_a_route_whose_permit_was_refused_is_marked_and_comes_last(): void
    {
        $job = $this->jobAtTheLine();
        $this->practice('brightmere', ['refused' => ['8G210']]);
        $this->cross($job);
        $this->workUntil($job, StepCode::ChooseRoute);

        $shown = $this->getJson("/api/v1/jobs/{$job->id}")->assertOk();
        self::assertSame(['8G210'], array_column($shown->json('refusedPermits'), 'build'));
        $ends = array_map(
            static fn (array $r): string => $r['legs'][count($r['legs']) - 1]['to']['build'],
            $shown->json('plan.routes'),
        );
        $refused = array_keys($ends, '8G210', true);
        self::assertSame(array_slice(array_keys($ends), -count($refused)), $refused, 'the refused ones are the last');
        self::assertSame(Position::Choosing->value, $shown->json('position'));
    }

    public function test_nobody_is_told_to_leave_the_device_alone_and_to_unplug_it(): void
    {
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/faults', ['kind' => 'not-recognised']);
        $job = $this->jobAtTheLine();
        $this->cross($job);
        $this->workUntilProblem($job, StepCode::Install, 'device-not-seen');

        $now = $this->getJson("/api/v1/jobs/{$job->id}")->assertOk()->json('now');
        self::assertSame(['technician-at-device', false], [$now['who'], $now['doNotDisturb']]);
        self::assertStringContainsString('plug it in again', strtolower($now['what'].' '.$now['why']));
    }

    private function cross(BenchJob $job): void
    {
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => $job->serial])->assertOk();
        $this->hands || $this->workUntil($job, StepCode::EnterRecovery, StepState::Ready);
    }
}
