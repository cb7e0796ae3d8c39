<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Models\Setting;
use App\Models\User;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/**
 * An old backup with sync over it; the owner lock is taken off the account from elsewhere, the SIM profile stays, and
 * the bags lie on another disk.
 */
final class OldBackupTest extends JourneyTestCase
{
    private const LOCKED = 'SKL-0071';

    private string $disk;

    protected function setUp(): void
    {
        parent::setUp();
        $this->disk = self::system()->folder.'/other-disk';
        is_dir($this->disk) || mkdir($this->disk, 0o700);
    }

    protected function tearDown(): void
    {
        Setting::query()->whereKey('storage')->delete();
        exec('rm -rf '.escapeshellarg($this->disk));
        parent::tearDown();
    }

    public function test_what_is_old_comes_from_the_bag_and_what_is_new_by_sync(): void
    {
        $this->signedIn(User::factory()->create(['role' => 'lead']))->putJson('/api/v1/storage', [
            'bagsFolder' => $this->disk,
            'packagesFolder' => (string) config('jade.packages'),
            'bagsBytes' => null,
            'packagesBytes' => null,
        ])->assertOk();
        $this->signedIn();
        $job = $this->openJob(self::LOCKED);
        $old = $this->oldBag(self::LOCKED, ['daysAgo' => 20, 'madeOn' => '8.6.0']);
        $this->acceptRoute($job, true);
        $this->workUntil($job, StepCode::CrossLine);
        self::assertDirectoryExists("{$this->disk}/{$job->safetyBag()?->id}");
        $this->attestAll($job);
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::LOCKED])->assertConflict();
        $this->hand('owner-lock-off-elsewhere', self::LOCKED);
        self::assertNull($this->device(self::LOCKED)['lockDelayEndsAt'], 'taken off the account it has no delay');
        $this->rig('POST', '/practice/devices/'.self::LOCKED.'/faults', ['kind' => 'sync-late']);
        $this->lineOpens($job);
        $this->workUntilProblem($job, StepCode::LowerCopy, 'return-held');
        self::assertSame(1, $this->counts(self::LOCKED)['esim'] ?? 0, 'the SIM profile was not wiped');

        $choices = array_column($this->getJson("/api/v1/jobs/{$job->id}/return")->json('choices'), null, 'backup');
        $this->choose($job, $old->id, $choices[$old->id]['losesMore'])->assertOk();
        $this->workUntilProblem($job, StepCode::BringIn, 'sync-wanted');
        $this->hand('sync-arrives', self::LOCKED);
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        $kinds = array_column(self::proofOf($job)['kinds'] ?? [], null, 'kind');
        self::assertSame('all', $kinds['saved-passwords']['happened'], 'by sync');
        $this->handOver($job);
    }
}
