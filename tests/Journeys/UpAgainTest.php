<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Models\Bag;
use App\Models\BenchJob;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/**
 * A device with a wearable goes down: into recovery mode, out of it without anything written, in again. Later it goes
 * up again, and the backup that was kept from the newer version is put back as it is.
 */
final class UpAgainTest extends JourneyTestCase
{
    private const WEARABLE = 'SKL-0063';

    protected bool $hands = false;

    protected bool $confirms = false;

    public function test_down_with_a_look_into_recovery_mode_first_and_later_up_again_with_the_kept_backup(): void
    {
        $kept = $this->takeDown();
        $up = $this->openJob(self::WEARABLE);
        $this->workUntil($up, StepCode::ChooseRoute);
        $told = $this->getJson("/api/v1/jobs/{$up->id}")->json();
        self::assertSame([$kept->id, '9.3.0'], [$told['keptFromNewer']['id'], $told['keptFromNewer']['madeOn']]);
        $this->putJson("/api/v1/jobs/{$up->id}/goal", ['goal' => ['exact' => '9.3.0']])->assertOk();
        $up = $this->upToTheLine($up);
        self::assertSame([Intent::TakeUp, 'in-place-update'], [$up->intent, self::routeOf($up)['legs'][0]['move']]);
        $this->typeSerial($up);
        $this->workUntil($up, StepCode::Prove, StepState::Done);
        self::assertSame('9.3.0', $this->device(self::WEARABLE)['version']);
        $codes = array_column($this->getJson("/api/v1/jobs/{$up->id}/hand-over")->json('aftercare'), 'code');
        self::assertContains('updates-as-before', $codes);
        self::assertNotContains('updates-by-hand', $codes, 'it is up on purpose');

        $choices = array_column($this->getJson("/api/v1/jobs/{$up->id}/return")->json('choices'), null, 'backup');
        self::assertSame('as-is', $choices[$kept->id]['base']['treatment']);
        $this->choose($up, $kept->id, $choices[$kept->id]['losesMore'])->assertOk();
        $this->workUntil($up, StepCode::Prove, StepState::Done);
        self::assertSame(
            [],
            Bag::query()->where('bench_job_id', $up->id)->where('lowered_from', '!=', null)->get()->all(),
            'it was put back as it is',
        );
        self::assertSame($kept->id, $this->evidenceOf('put-back-done')['backup'] ?? null);
        self::assertSame(self::PHOTOS, $this->counts(self::WEARABLE)['photos']);
        $this->handOver($up);
    }

    public function test_a_refused_permit_on_the_way_up_leaves_it_as_it_was_and_it_still_arrives(): void
    {
        $this->takeDown();
        $this->confirms = true;
        $up = $this->openJob(self::WEARABLE);
        $this->workUntil($up, StepCode::ChooseRoute);
        $this->putJson("/api/v1/jobs/{$up->id}/goal", ['goal' => ['exact' => '9.3.0']])->assertOk();
        $up = $this->upToTheLine($up);
        $this->practice('brightmere', ['refused' => ['9D55']]);
        $this->typeSerial($up);
        $this->workUntil($up, StepCode::ChooseRoute);
        self::assertSame('8.7.0', $this->device(self::WEARABLE)['version']);
        $this->practice('brightmere', null);

        $up = $this->upToTheLine($up->refresh());
        $this->typeSerial($up);
        $this->workUntil($up, StepCode::Prove, StepState::Done);
        self::assertSame('9.3.0', $this->device(self::WEARABLE)['version']);
    }

    /** @return Bag the sealed backup of the version that it came from */
    private function takeDown(): Bag
    {
        $down = $this->jobAtTheLine(self::WEARABLE);
        $kept = $down->safetyBag() ?? self::fail('The job has no backup.');
        $this->typeSerial($down);
        $this->workUntilProblem($down, StepCode::EnterRecovery, 'recovery-wanted');
        self::assertFalse($this->getJson("/api/v1/jobs/{$down->id}")->json('may.confirm-install.allowed'));
        $this->pressKeys(self::WEARABLE);
        $this->workUntilProblem($down, StepCode::Install, 'install-wanted');
        $told = $this->getJson("/api/v1/jobs/{$down->id}")->json();
        self::assertSame(['confirm-install', 'line-open'], [$told['now']['act'], $told['position']]);
        $this->postJson("/api/v1/jobs/{$down->id}/recovery/leave")->assertOk();
        $this->workUntil($down, StepCode::CrossLine);
        self::assertSame([], $this->device(self::WEARABLE)['writes'], 'nothing was written');

        $this->typeSerial($down->refresh());
        [$this->hands, $this->confirms] = [true, true];
        $this->workUntil($down, StepCode::Prove, StepState::Done);
        self::assertSame('8.7.0', $this->device(self::WEARABLE)['version']);
        $eye = $this->postJson("/api/v1/jobs/{$down->id}/by-eye")->assertOk()->json('layout.before.pages.0.2.apps');
        self::assertSame(
            ['Ticket Scanner' => false, 'Watch Roster' => true, 'Notes' => false],
            array_column($eye, 'missing', 'name'),
            'an app that needs the newer version has no place on the older one',
        );
        $this->handOver($down);
        self::assertSame(BagState::Sealed, $kept->refresh()->state);

        return $kept;
    }

    private function upToTheLine(BenchJob $job): BenchJob
    {
        $this->acceptRoute($job->refresh());
        $this->workUntil($job, StepCode::CrossLine);
        $this->attestAll($job);

        return $job->refresh();
    }
}
