<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\BenchJob;
use App\Models\Measurement;
use JadeStep\Core\Exchange\GoalDocument;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use PHPUnit\Framework\Attributes\DataProvider;

/** From the erase line to a device that runs the older version, with what goes wrong on the way. */
final class InstallTest extends FeatureTestCase
{
    public function test_recovery_mode_is_waited_for_by_its_keys_and_left_again_with_everything_as_it_was(): void
    {
        $job = $this->jobAtTheLine();
        $bag = $job->safetyBag()?->id;
        $this->hands = false;
        $this->cross($job);
        $this->workUntil($job, StepCode::EnterRecovery, StepState::Ready);

        $shown = $this->getJson("/api/v1/jobs/{$job->id}")
            ->assertOk()
            ->assertJsonPath('current.problem.code', 'recovery-wanted')
            ->assertJsonPath('may.leave-recovery.allowed', true);
        self::assertSame(
            [
                ['press', 'volume-up', null, 'left', 0.24],
                ['press', 'volume-down', null, 'left', 0.34],
                ['hold', 'power', 12, 'right', 0.3],
            ],
            array_map(array_values(...), $shown->json('recoveryKeys')),
        );
        $this->pressKeys(self::SERIAL);
        $this->awaitMode('recovery');

        $this->postJson("/api/v1/jobs/{$job->id}/recovery/leave")
            ->assertOk()
            ->assertJsonPath('lineCrossed', false)
            ->assertJsonPath('may.leave-recovery.allowed', false);
        $this->workUntil($job, StepCode::CrossLine);
        $this->awaitMode('normal');
        self::assertSame(
            [$bag, 'sealed', '9.3.0'],
            [$job->safetyBag()?->id, $job->safetyBag()?->state->value, $this->device()['version']],
        );
        self::assertSame(
            [self::PHOTOS, StepState::Done],
            [
                array_column($this->device()['kinds'], 'items', 'kind')['photos'],
                $job->step(StepCode::SealBackup)->state,
            ],
        );

        $this->hands = true;
        $this->cross($job);
        $this->workUntil($job, StepCode::HandOver);
        self::assertSame(0, $job->proof?->missing());
        $this->postJson("/api/v1/jobs/{$job->id}/recovery/leave")->assertConflict();
    }

    public function test_wrong_keys_are_told_and_nothing_is_entered(): void
    {
        $press = fn (array $key): string => (string) $this->rig(
            'POST',
            '/practice/devices/'.self::SERIAL.'/keys',
            $key,
        )['heard'];

        self::assertStringContainsString('volume-up', $press(['action' => 'press', 'target' => 'power']));
        self::assertStringContainsString('Step 1 of 3', $press(['action' => 'press', 'target' => 'volume-up']));
        self::assertStringContainsString('Step 2 of 3', $press(['action' => 'press', 'target' => 'volume-down']));
        self::assertStringContainsString(
            'too early',
            $press(['action' => 'hold', 'target' => 'power', 'seconds' => 5]),
        );
        self::assertSame('normal', $this->device()['mode']);
    }

    public function test_a_device_can_be_asked_over_the_cable(): void
    {
        $this->hands = false;
        $job = $this->jobAtTheLine();
        $this->postJson("/api/v1/jobs/{$job->id}/recovery/cable")->assertConflict();
        $this->cross($job);
        $this->workUntil($job, StepCode::EnterRecovery, StepState::Ready);
        $this->postJson("/api/v1/jobs/{$job->id}/recovery/cable")->assertOk();
        $this->workUntil($job, StepCode::HandOver);

        self::assertSame('8.7.0', $this->device()['version']);
    }

    public function test_a_route_of_two_legs_erases_a_candidate_and_steps_up_in_place(): void
    {
        $job = $this->jobAtTheLine('SKT-0011');
        self::assertSame(['erase-install', 'in-place-update'], array_column(self::routeOf($job)['legs'], 'move'));
        $this->cross($job);
        $this->workUntil($job, StepCode::HandOver);

        self::assertSame(['8.8.0', '8H95'], [$this->device('SKT-0011')['version'], $this->device('SKT-0011')['build']]);
        self::assertSame([0, 1], $job->steps->where('code', StepCode::Install)->pluck('leg')->all());
        self::assertSame(0, $job->proof?->missing());
        self::assertSame(
            0,
            Measurement::query()->where('bench_job_id', $job->id)->count(),
            'the rates of a practice bench are no rates of this shop',
        );
    }

    public function test_an_in_place_step_down_keeps_the_data_and_still_backs_up_first(): void
    {
        $this->rig('POST', '/practice/devices/SKL-0094/reset');
        $this->rig('POST', '/practice/devices/SKL-0094/port', ['port' => '9']);
        $this->rig('POST', '/practice/devices/SKL-0094/answers', ['answer' => 'charged']);
        $this->rig('POST', '/practice/devices/SKL-0094/answers', ['answer' => 'charger-in']);
        $job = BenchJob::query()->findOrFail(
            $this->signedIn()
                ->postJson('/api/v1/jobs', ['serial' => 'SKL-0094'])
                ->assertCreated()
                ->json('id'),
        );
        $this->workUntil($job, StepCode::ChooseRoute);
        $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['newestBelow' => '9.3.0']])->assertOk();
        $this->acceptRoute($job->refresh());
        $this->workUntil($job, StepCode::CrossLine);
        self::assertSame(
            ['in-place-step-down', 0, 'sealed'],
            [self::routeOf($job)['legs'][0]['move'], $job->route?->erases(), $job->safetyBag()?->state->value],
        );
        foreach (['owner-account-at-hand', 'passcode-known'] as $code) {
            $this->putJson("/api/v1/jobs/{$job->id}/attestations/{$code}")->assertOk();
        }
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => 'SKL-0094'])->assertOk();
        $this->workUntil($job, StepCode::HandOver);

        self::assertNull($job->erase_begun_at);
        self::assertNotNull($job->install_begun_at);
        self::assertNull($job->steps->firstWhere('code', StepCode::PutBack));
        self::assertSame(
            ['9.2.0', 0, true],
            [$this->device('SKL-0094')['version'], $job->proof?->missing(), self::proofOf($job)['nothingLost']],
        );
        $this->rig('POST', '/practice/devices/SKL-0094/port', ['port' => null]);
    }

    /** @param  array<string, mixed>  $fault */
    #[DataProvider('faultsThatHandsMend')]
    public function test_what_goes_wrong_is_told_and_goes_on_when_a_hand_has_mended_it(
        array $fault,
        StepCode $at,
        string $code,
        ?string $answer,
    ): void {
        $job = $this->jobAtTheLine();
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/faults', $fault);
        $this->cross($job);
        $this->workUntilProblem($job, $at, $code);
        $this->getJson('/api/v1/bench')
            ->assertOk()
            ->assertJsonPath('hands', 1)
            ->assertJsonPath('open.0.needsHand', true);
        $this->mend($answer);
        $job->step($at)->state === StepState::Failed
            ? $this->postJson("/api/v1/jobs/{$job->id}/steps/{$at->value}/retry")->assertOk()
            : null;
        $this->workUntil($job, StepCode::HandOver);

        self::assertSame(['8.7.0', 0], [$this->device()['version'], $job->proof?->missing()]);
    }

    /** @return iterable<string, array{array<string, mixed>, StepCode, string, string|null}> */
    public static function faultsThatHandsMend(): iterable
    {
        yield 'not recognised after the restart' => [
            ['kind' => 'not-recognised'],
            StepCode::Install,
            'device-not-seen',
            'replug',
        ];
        yield 'consent wanted when it is paired again' => [
            ['kind' => 'consent-wanted'],
            StepCode::Wake,
            'consent-wanted',
            'consent',
        ];
        yield 'passcode wanted' => [['kind' => 'passcode-wanted'], StepCode::Wake, 'passcode-wanted', 'passcode'];
        yield 'cable out while it extracts' => [
            ['kind' => 'cable-out', 'phase' => 'extract', 'percent' => 50],
            StepCode::Install,
            'device-not-seen',
            'replug',
        ];
        yield 'cable out while it writes' => [
            ['kind' => 'cable-out', 'phase' => 'write', 'percent' => 60],
            StepCode::Install,
            'device-not-seen',
            'other-port',
        ];
        yield 'the install fails while it writes' => [
            ['kind' => 'work-fails', 'phase' => 'write', 'percent' => 60],
            StepCode::Install,
            'install-failed',
            null,
        ];
        yield 'the device has no room' => [['kind' => 'disk-full'], StepCode::Install, 'disk-full', null];
        yield 'the package reaches the device altered' => [
            ['kind' => 'package-flipped'],
            StepCode::Install,
            'package-altered',
            null,
        ];
    }

    public function test_a_device_locked_to_its_owner_waits_for_the_account_and_for_the_lock_before_the_return(): void
    {
        $job = $this->jobAtTheLine();
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/faults', ['kind' => 'owner-lock-on']);
        $this->cross($job);
        $this->workUntilProblem($job, StepCode::Wake, 'owner-account-wanted');
        self::assertStringContainsString(
            'on the device itself, never here',
            $job->step(StepCode::Wake)->problem->detail ?? '',
        );
        $this->mend('owner-account');
        $this->workUntilProblem($job, StepCode::PutBack, 'owner-lock-on');
        $this->mend('owner-lock-off');
        $this->workUntil($job, StepCode::HandOver);

        self::assertSame(0, $job->proof?->missing());
    }

    public function test_a_broken_install_offers_the_next_route_from_where_it_stands_and_never_to_give_up(): void
    {
        $job = $this->jobAtTheLine('SKL-0057');
        $this->rig('POST', '/practice/devices/SKL-0057/faults', [
            'kind' => 'work-fails',
            'phase' => 'write',
            'percent' => 40,
        ]);
        $this->cross($job);
        $this->workUntil($job, StepCode::Install, StepState::Failed);
        self::assertFalse($this->device('SKL-0057')['bootable']);

        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertConflict();
        $this->postJson("/api/v1/jobs/{$job->id}/recovery/leave")->assertConflict();
        $this->getJson("/api/v1/jobs/{$job->id}")
            ->assertJsonPath('may.leave-recovery.allowed', false)
            ->assertJsonPath('may.go-onward.allowed', true);
        $plans = $this->getJson("/api/v1/jobs/{$job->id}/onward")
            ->assertOk()
            ->json('plans');
        self::assertSame([['newestInMajor' => 8], ['exact' => '9.3.0']], array_column($plans, 'goal'));
        $up = $plans[1]['plan']['routes'][0];
        self::assertSame(
            ['erase-install', '9D55', $job->safetyBag()?->id, 'as-is'],
            [$up['legs'][0]['move'], $up['legs'][0]['to']['build'], $up['base']['backup'], $up['base']['treatment']],
        );

        $this->postJson("/api/v1/jobs/{$job->id}/onward", [
            'goal' => ['exact' => '9.3.0'],
            'route' => $up['id'],
            'build' => '9D55',
            'accept' => ['pairingLost' => [], 'appsUnavailable' => []],
        ])->assertOk();
        $this->workUntil($job, StepCode::HandOver);
        self::assertSame(
            ['9.3.0', true, 0, true],
            [
                $this->device('SKL-0057')['version'],
                $this->device('SKL-0057')['bootable'],
                $job->proof?->missing(),
                self::proofOf($job)['nothingLost'],
            ],
        );
        self::assertNull($job->loweredCopy((string) $job->safetyBag()?->id));
        $this->getJson("/api/v1/jobs/{$job->id}/onward")->assertConflict();
    }

    public function test_a_permit_that_is_refused_for_the_second_leg_leaves_the_next_route(): void
    {
        $job = $this->jobAtTheLine('SKT-0011');
        $this->practice('brightmere', ['refused' => ['8H95']]);
        $this->cross($job);
        $this->workUntil($job, StepCode::Install, StepState::Failed);
        self::assertSame(
            [1, 'window-closed', '8.8.0-rc.1'],
            [
                $job->step(StepCode::Install)->leg,
                $job->step(StepCode::Install)->problem->reason ?? null,
                $this->device('SKT-0011')['version'],
            ],
        );

        $this->practice('brightmere', null);
        $plan = $this->getJson("/api/v1/jobs/{$job->id}/onward")
            ->assertOk()
            ->json('plans.0.plan');
        self::assertSame(
            ['in-place-update', '8H95'],
            [$plan['routes'][0]['legs'][0]['move'], $plan['routes'][0]['legs'][0]['to']['build']],
        );
        self::assertSame($job->safetyBag()?->id, $plan['routes'][0]['base']['backup']);
        $this->postJson("/api/v1/jobs/{$job->id}/onward", [
            'goal' => GoalDocument::write($job->goal ?? throw new \LogicException('It has a goal.')),
            'route' => $plan['routes'][0]['id'],
            'build' => '8H95',
            'accept' => ['pairingLost' => [], 'appsUnavailable' => []],
        ])->assertOk();
        $this->workUntil($job, StepCode::HandOver);
        self::assertSame(['8.8.0', 0], [$this->device('SKT-0011')['version'], $job->proof?->missing()]);
    }

    public function test_a_device_that_is_moved_is_known_again_and_a_different_one_on_its_port_is_not_written_to(): void
    {
        $this->hands = false;
        $job = $this->jobAtTheLine();
        $this->cross($job);
        $this->workUntil($job, StepCode::EnterRecovery, StepState::Ready);
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/port', ['port' => null]);
        $this->rig('POST', '/practice/devices/SKL-0102/port', ['port' => '1']);
        $this->pressKeys('SKL-0102');
        $this->workUntilProblem($job, StepCode::EnterRecovery, 'device-not-seen');
        self::assertSame(
            ['10.0.0-beta.2', null],
            [$this->device('SKL-0102')['version'], $job->refresh()->install_begun_at],
        );

        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/port', ['port' => '9']);
        $this->hands = true;
        $this->workUntil($job, StepCode::HandOver);
        $bench = $this->getJson('/api/v1/bench')->json('benches.0.ports');
        self::assertSame([self::SERIAL, $job->id], [$bench[8]['serial'], $bench[8]['jobId']]);
        self::assertSame(
            ['8.7.0', '10.0.0-beta.2'],
            [$this->device()['version'], $this->device('SKL-0102')['version']],
        );
        $this->rig('POST', '/practice/devices/SKL-0102/reset');
    }

    public function test_a_device_that_left_recovery_mode_before_the_install_is_asked_for_its_keys_again(): void
    {
        $this->hands = false;
        $job = $this->jobAtTheLine();
        $this->cross($job);
        $this->workUntil($job, StepCode::EnterRecovery, StepState::Ready);
        $job->steps()->where('code', StepCode::EnterRecovery)->update(['state' => StepState::Done]);
        $job->steps()->where('code', StepCode::Install)->update(['state' => StepState::Ready]);
        \App\Steps\RunStep::dispatch($job->step(StepCode::Install)->id);
        $this->workUntil($job, StepCode::Install, StepState::Waiting);

        self::assertNull($job->install_begun_at);
        $this->hands = true;
        $this->workUntil($job, StepCode::HandOver);
        self::assertSame(JobState::Open, $job->state);
    }

    public function test_the_bench_shows_the_most_urgent_first(): void
    {
        $stuck = $this->jobAtTheLine('SKL-0057');
        $this->rig('POST', '/practice/devices/SKL-0057/faults', [
            'kind' => 'work-fails',
            'phase' => 'write',
            'percent' => 10,
        ]);
        $this->cross($stuck);
        $this->workUntil($stuck, StepCode::Install, StepState::Failed);
        $open = $this->openJob('OST-2107');
        $this->workUntil($open, StepCode::ChooseRoute);
        $ending = $this->openJob();
        $this->workUntil($ending, StepCode::ChooseRoute);
        $this->practice('brightmere', [
            'windows' => ['8G210' => ['until' => gmdate('Y-m-d\TH:i:s\Z', time() + 7200), 'announced' => true]],
        ]);
        $this->postJson('/api/v1/almanac/refresh')->assertOk();
        $this->putJson("/api/v1/jobs/{$ending->id}/goal", ['goal' => ['newestInMajor' => 8]])->assertOk();
        $busy = $this->openJob('SKT-0011'); // its reading is queued: nothing to do for anybody

        $bench = $this->getJson('/api/v1/bench')->assertOk();
        self::assertSame([$stuck->id, $ending->id, $open->id, $busy->id], array_column($bench->json('open'), 'id'));
        self::assertSame([true, true, true, false], array_column($bench->json('open'), 'needsHand'));
        self::assertSame(3, $bench->json('hands'));
    }

    private function cross(BenchJob $job): void
    {
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => $job->serial])->assertOk();
    }

    private function mend(?string $how): void
    {
        $hand = fn (string $hand, array $body): array => $this->rig(
            'POST',
            '/practice/devices/'.self::SERIAL."/{$hand}",
            $body,
        );
        match ($how) {
            null => null,
            'replug' => [$hand('port', ['port' => null]), $hand('port', ['port' => '1'])],
            'other-port' => $hand('port', ['port' => '10']),
            default => $hand('answers', ['answer' => $how]),
        };
    }

    private function awaitMode(string $mode): void
    {
        \Tests\Support\RunningSystem::waitUntil(
            fn (): bool => $this->device()['mode'] === $mode,
            10,
            "the device did not come to {$mode} mode",
        );
    }

    /** @return array<string, mixed> */
    private function device(string $serial = self::SERIAL): array
    {
        return $this->rig('GET', "/devices/{$serial}");
    }
}
