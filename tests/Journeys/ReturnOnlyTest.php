<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Models\Bag;
use App\Models\BenchJob;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** A device that was installed elsewhere and started empty gets its data back. */
final class ReturnOnlyTest extends JourneyTestCase
{
    public function test_a_device_that_was_erased_elsewhere_gets_its_data_back_through_a_lowered_copy(): void
    {
        $bag = $this->backedUp($this->backUpOnly());
        $this->hand('installed-elsewhere');
        $job = $this->returnOnly();

        $told = $this->getJson("/api/v1/jobs/{$job->id}")->assertOk();
        self::assertSame(
            ['return-only', ['identify', 'return', 'hand-over'], 'returning', 'choose-return', '8.7.0'],
            [
                $told->json('intent'), $told->json('stages'), $told->json('position'), $told->json('now.act'),
                $told->json('fromVersion'),
            ],
        );
        self::assertSame(
            'Choose what is put back: a backup of this device, or its owner’s cloud.',
            $told->json('now.why'),
        );
        $choices = $this->getJson("/api/v1/jobs/{$job->id}/return")->assertOk();
        self::assertSame($bag->id, $choices->json('proposed'));
        self::assertSame(
            ['lowered', '8.7.0'],
            [$choices->json('choices.0.base.treatment'), $choices->json('choices.0.base.declaredVersion')],
        );

        $this->choose($job, $bag->id)->assertOk();
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame(self::PHOTOS, $this->counts()['photos']);
        $proof = $this->getJson("/api/v1/jobs/{$job->id}")->json();
        self::assertSame('nothing-missing', $proof['verdict']['code'], $proof['verdict']['words']);
        $photos = array_column($proof['proof']['kinds'], null, 'kind')['photos'];
        self::assertSame([self::PHOTOS, true], [$photos['before'], $photos['compared']]);
        self::assertSame(
            1,
            Bag::query()->where('bench_job_id', $job->id)->where('lowered_from', $bag->id)->count(),
            'the original was not touched',
        );
        self::assertSame(BagState::Sealed, $bag->refresh()->state);
        self::assertStringStartsWith('off, read ', $this->evidenceOf('put-back-done')['owner lock'] ?? '');

        $this->postJson("/api/v1/jobs/{$job->id}/hand-over")->assertOk()->assertJsonPath('state', 'done');
        $this->getJson("/api/v1/jobs/{$job->id}/sheet")->assertOk();
    }

    public function test_a_backup_that_was_brought_in_as_a_zip_is_put_back_as_it_is_where_it_fits(): void
    {
        $brought = $this->oldBag(self::SERIAL, ['daysAgo' => 3, 'madeOn' => '8.7.0']);
        $this->hand('installed-elsewhere');
        $job = $this->returnOnly();
        $choice = $this->getJson("/api/v1/jobs/{$job->id}/return")->json('choices.0');
        self::assertSame([$brought->id, 'as-is', 'import'], [
            $choice['backup'],
            $choice['base']['treatment'],
            $choice['source'],
        ]);
        $this->choose($job, $brought->id)->assertOk();
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame($brought->counts['photos'] ?? 0, $this->counts()['photos']);
        self::assertSame('nothing-missing', $this->getJson("/api/v1/jobs/{$job->id}")->json('verdict.code'));
    }

    public function test_the_owner_lock_stops_it_and_switched_off_it_goes_on_by_itself(): void
    {
        $bag = $this->backedUp($this->backUpOnly());
        $this->hand('installed-elsewhere');
        $this->hand('owner-lock-on');
        $job = $this->returnOnly();
        $this->choose($job, $bag->id)->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'owner-lock-on');
        self::assertTrue($this->getJson("/api/v1/jobs/{$job->id}")->json('may.leave.allowed'));

        $this->hand('owner-lock-off');
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame(self::PHOTOS, $this->counts()['photos']);
        $acts = $this->getJson("/api/v1/jobs/{$job->id}")->json('may');
        self::assertSame([false, true], [$acts['leave']['allowed'], $acts['give-back']['allowed']]);
    }

    public function test_what_only_another_backup_has_is_named_and_accepted(): void
    {
        $bag = $this->backedUp($this->backUpOnly());
        $poor = $bag->replicate()->fill([
            'id' => 'without-photos',
            'taken_at' => $bag->taken_at->addHour(),
            'kinds' => array_values(array_filter($bag->kinds, static fn ($k): bool => $k->value !== 'photos')),
        ]);
        $poor->save();
        mkdir(self::system()->folder.'/bags/without-photos');
        $this->hand('installed-elsewhere');
        $job = $this->returnOnly();

        $choices = array_column($this->getJson("/api/v1/jobs/{$job->id}/return")->json('choices'), null, 'backup');
        self::assertSame([['photos'], []], [$choices['without-photos']['losesMore'], $choices[$bag->id]['losesMore']]);
        self::assertStringContainsString(
            'photos',
            (string) $this->choose($job, 'without-photos')->assertConflict()->json('detail'),
        );
        self::assertNull($job->refresh()->return_choice);
        $poor->delete();
    }

    public function test_it_can_be_left_before_anything_is_put_back_and_says_what_it_does_not_do(): void
    {
        $job = $this->returnOnly();
        $told = $this->getJson("/api/v1/jobs/{$job->id}");
        self::assertStringContainsString('The device is not empty', $told->json('now.why'));
        self::assertSame(
            'Nothing has been put on the device yet: it can still be left as it is.',
            $told->json('undoWords'),
        );
        foreach (['plan', 'accept-route', 'cross-line', 'give-back', 'hand-over'] as $act) {
            self::assertFalse($told->json("may.{$act}.allowed"), $act);
        }
        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertOk();
        self::assertSame([JobState::Abandoned, null], [$job->refresh()->state, $job->held_serial]);
    }

    public function test_its_data_comes_from_the_cloud_where_no_backup_is_here(): void
    {
        $serial = 'SKL-0118';
        $this->taken[] = $serial;
        $this->deliver($serial);
        $this->rig('POST', "/practice/devices/{$serial}/port", ['port' => '9']);
        $this->hand('installed-elsewhere', $serial);
        $job = $this->returnOnly($serial);
        $cloud = array_diff_key($this->device($serial)['cloudBackup'], ['share' => 1]);
        $this->putJson("/api/v1/jobs/{$job->id}/cloud", ['backup' => $cloud, 'syncs' => []])->assertOk();
        self::assertSame('cloud', $this->getJson("/api/v1/jobs/{$job->id}/return")->json('proposed'));
        $this->choose($job, 'cloud')->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'cloud-return-wanted');
        $this->hand('cloud-return', $serial);

        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame('arrived', $this->getJson("/api/v1/jobs/{$job->id}/return")->json('cloud'));
        self::assertSame(2, $this->counts($serial)['photos']);
        $this->handOver($job);
        self::assertSame(JobState::Done, $job->state);
    }

    private function returnOnly(string $serial = self::SERIAL): BenchJob
    {
        $job = BenchJob::query()->findOrFail(
            $this->signedIn()
                ->postJson('/api/v1/jobs', ['serial' => $serial, 'intent' => 'return-only'])
                ->assertCreated()
                ->json('id'),
        );
        $this->workUntilProblem($job, StepCode::LowerCopy, 'return-wanted');

        return $job;
    }
}
