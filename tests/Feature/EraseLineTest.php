<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\BenchJob;
use App\Steps\LiveReadings;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use PHPUnit\Framework\Attributes\DataProvider;

final class EraseLineTest extends FeatureTestCase
{
    public function test_only_this_devices_serial_is_taken(): void
    {
        $job = $this->jobAtTheLine();

        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => 'SKL-0057'])
            ->assertUnprocessable()
            ->assertJsonPath('code', 'wrong-serial');
        $this->postJson("/api/v1/jobs/{$job->id}/line", [])->assertUnprocessable();
        $this->assertNothingErased($job);
    }

    public function test_what_nobody_vouched_for_keeps_it_shut(): void
    {
        $job = $this->openJob();
        $this->acceptRoute($job);
        $this->workUntil($job, StepCode::CrossLine);

        $answer = $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL])
            ->assertConflict()
            ->assertJsonPath('code', 'erase-line-closed');

        self::assertSame(['owner-account-at-hand', 'passcode-known'], array_column($answer->json('checks'), 'code'));
        $this->assertNothingErased($job);
    }

    public function test_a_machines_check_cannot_be_vouched_for(): void
    {
        $job = $this->openJob();

        $this->putJson("/api/v1/jobs/{$job->id}/attestations/backup-verified")->assertConflict();
        $this->putJson("/api/v1/jobs/{$job->id}/attestations/nonsense")->assertNotFound();
        self::assertNull($job->refresh()->attestations);
    }

    public function test_several_are_vouched_for_with_one_word_or_none_is(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        $this->acceptRoute($job);
        $this->putJson("/api/v1/jobs/{$job->id}/attestations", [
            'codes' => ['passcode-known', 'backup-verified'],
        ])->assertConflict();
        self::assertNull($job->refresh()->attestations);
        $this->putJson("/api/v1/jobs/{$job->id}/attestations", ['codes' => []])
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.pointer', '/codes');
        $both = $this->putJson("/api/v1/jobs/{$job->id}/attestations", [
            'codes' => ['passcode-known', 'owner-account-at-hand'],
        ])->assertOk();
        $states = array_column($both->json('checks'), 'state', 'code');
        self::assertSame(['attested', 'attested'], [$states['passcode-known'], $states['owner-account-at-hand']]);
    }

    public function test_it_cannot_be_crossed_before_it_is_reached(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);

        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL])->assertConflict();
        $this->assertNothingErased($job);
    }

    /** @param  callable(string): void  $harm */
    #[DataProvider('harms')]
    public function test_a_bag_that_was_harmed_after_its_sealing_is_found_at_the_line(
        callable $harm,
        BagState $bag,
    ): void {
        $job = $this->jobAtTheLine();
        exec('chmod -R u+w '.escapeshellarg($this->bagFolder($job)));
        $harm($this->bagFolder($job));

        // what the screen showed was green; the last proof reads the bag again
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL]);
        $this->workUntil($job, StepCode::CrossLine);

        self::assertSame(
            [$bag, StepState::Waiting],
            [$job->safetyBag()?->state, $job->step(StepCode::EnterRecovery)->state],
        );
        $this->assertNothingErased($job);
    }

    /** @return iterable<string, array{callable, BagState}> */
    public static function harms(): iterable
    {
        yield 'a flipped bit' => [
            static function (string $bag): void {
                $file = "{$bag}/data/contacts/card-002.vcf";
                $text = (string) file_get_contents($file);
                $text[9] = chr(ord($text[9]) ^ 1);
                file_put_contents($file, $text);
                exec('chmod -R a-w '.escapeshellarg($bag));
            },
            BagState::Damaged,
        ];
        yield 'a file is gone' => [
            static function (string $bag): void {
                unlink("{$bag}/data/notes/note-02.md");
                exec('chmod -R a-w '.escapeshellarg($bag));
            },
            BagState::Damaged,
        ];
        yield 'the whole bag is gone' => [
            static fn (string $bag) => exec('rm -rf '.escapeshellarg($bag)),
            BagState::Sealed,
        ];
        yield 'the seal is broken' => [
            static fn (string $bag) => chmod("{$bag}/data/notes/note-02.md", 0o644),
            BagState::Sealed,
        ];
    }

    public function test_an_altered_package_is_found_at_the_line(): void
    {
        $job = $this->jobAtTheLine();
        $this->flipOneBit(
            self::system()->folder.'/packages/'.self::routeOf($job)['legs'][0]['package']['sha256'].'.fwp',
        );

        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL]);
        $this->workUntil($job, StepCode::CrossLine);

        self::assertStringContainsString('package', $job->step(StepCode::CrossLine)->problem->detail ?? '');
        $this->assertNothingErased($job);
        // it was thrown away and fetched again
        self::assertSame(StepState::Done, $job->step(StepCode::FetchPackage)->state);
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL])->assertOk();
        $this->workUntil($job, StepCode::HandOver);
    }

    public function test_an_owner_lock_that_was_switched_on_meanwhile_is_found_at_the_line(): void
    {
        $job = $this->jobAtTheLine();
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/answers', ['answer' => 'owner-lock-on']);

        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL])->assertOk();
        $this->workUntil($job, StepCode::CrossLine);

        self::assertStringContainsString('owner lock', $job->step(StepCode::CrossLine)->problem->detail ?? '');
        $this->assertNothingErased($job);
    }

    public function test_after_a_damage_a_new_backup_opens_the_way_again(): void
    {
        $job = $this->jobAtTheLine();
        $first = $job->safetyBag()?->id;
        exec('chmod -R u+w '.escapeshellarg($this->bagFolder($job)));
        $this->flipOneBit($this->bagFolder($job).'/data/contacts/card-002.vcf');
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL]);
        $this->workUntil($job, StepCode::CrossLine);

        $this->postJson("/api/v1/jobs/{$job->id}/backup-again")->assertOk();
        $this->workUntil($job, StepCode::CrossLine);

        self::assertNotSame($first, $job->safetyBag()?->id);
        self::assertSame(BagState::Sealed, $job->safetyBag()?->state);
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL])->assertOk();
        $this->workUntil($job, StepCode::ProveSafety, StepState::Done);
    }

    public function test_a_backup_that_is_damaged_before_it_is_verified_is_never_sealed(): void
    {
        $job = $this->openJob();
        $this->acceptRoute($job);
        $this->stopBefore($job, StepCode::VerifyBackup);
        $this->flipOneBit($this->bagFolder($job).'/data/contacts/card-002.vcf');
        $this->workUntil($job, StepCode::VerifyBackup, StepState::Failed);

        self::assertSame(
            [BagState::Damaged, 'data/contacts/card-002.vcf'],
            [$job->safetyBag()?->state, $job->safetyBag()?->faults[0]->path],
        );
        self::assertSame(
            [StepState::Waiting, StepState::Waiting],
            [$job->step(StepCode::SealBackup)->state, $job->step(StepCode::CrossLine)->state],
        );
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL])->assertConflict();
        $this->assertNothingErased($job);
    }

    public function test_the_checks_follow_the_device_while_nothing_is_pressed(): void
    {
        $job = $this->jobAtTheLine();
        $ends = gmdate('Y-m-d\TH:i:s\Z', time() + 3600);
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/state', [
            'batteryPercent' => 12,
            'charging' => false,
            'ownerLock' => 'on',
            'lockDelay' => 'on',
            'lockDelayEndsAt' => $ends,
        ]);

        $this->lookNow();

        $checks = array_column($this->getJson("/api/v1/jobs/{$job->id}")->json('checks'), null, 'code');
        self::assertSame(
            ['fail', 'fail', 'fail'],
            [$checks['battery']['state'], $checks['owner-lock-off']['state'], $checks['lock-delay']['state']],
        );
        self::assertSame(
            ["Ends {$ends}", true],
            [
                $checks['lock-delay']['evidence'],
                str_contains($checks['lock-delay']['mend'], 'remotely, which has no delay'),
            ],
        );
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL])->assertConflict();
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/state', [
            'batteryPercent' => 60,
            'ownerLock' => 'off',
            'lockDelay' => 'off',
            'lockDelayEndsAt' => null,
        ]);
        $this->lookNow();
        self::assertSame(
            'pass',
            array_column($this->getJson("/api/v1/jobs/{$job->id}")->json('checks'), 'state', 'code')['battery'],
        );
        $this->assertNothingErased($job);
    }

    /** Runs the steps one by one until the one before this is done. */
    private function stopBefore(BenchJob $job, StepCode $code): void
    {
        for ($i = 0; $i < 50 && $job->step($code)->state === StepState::Waiting; $i++) {
            $this->artisan('queue:work', ['--once' => true, '--sleep' => 0, '--tries' => 0])->run();
        }
        self::assertSame(StepState::Ready, $job->step($code)->state);
    }

    private function assertNothingErased(BenchJob $job): void
    {
        $device = $this->rig('GET', '/devices/'.self::SERIAL);

        self::assertSame(
            ['9.3.0', 'normal', self::PHOTOS],
            [$device['version'], $device['mode'], array_column($device['kinds'], 'items', 'kind')['photos'] ?? null],
        );
        self::assertNull($job->refresh()->line_crossed_at);
    }

    /** A new worker's first look, which no other has taken from it. */
    private function lookNow(): void
    {
        app(LiveReadings::class)->lookAtDevices();
    }
}
