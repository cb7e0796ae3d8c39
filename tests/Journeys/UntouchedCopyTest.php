<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\User;
use App\Shelf\Keeping;
use App\Shelf\Night;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\StepCode;

/** An untouched, named copy is kept before somebody tries a beta; nights that follow leave it alone. */
final class UntouchedCopyTest extends JourneyTestCase
{
    private const NAME = 'Before the Tarn 10 beta';

    public function test_a_named_copy_is_sealed_and_a_later_night_leaves_it_alone(): void
    {
        $job = $this->backUpOnly(['name' => '  '.self::NAME.' ']);
        $bag = $this->backedUp($job);

        self::assertSame(
            [JobState::BackedUp, null, BagState::Sealed, self::NAME, false],
            [$job->state, $job->held_serial, $bag->state, $bag->label, $bag->isEncrypted()],
        );
        self::assertSame(self::PHOTOS, $bag->counts['photos'] ?? 0);
        $description = BagReader::open($this->bagFolder($job))->description();
        self::assertSame(self::NAME, $description->label, 'the bag itself says so too');

        $tagged = (string) hash_file('sha256', $this->bagFolder($job).'/bag-info.txt');
        User::factory()->create(['role' => 'lead']);
        app(Night::class)->backUp();
        $this->backedUp(BenchJob::query()->where('nightly', true)->sole());
        app(Night::class)->thin(
            Keeping::of(Fields::of(['daily' => 1, 'weekly' => 0] + Keeping::read()->fields()->all())),
        );

        $bag->refresh();
        self::assertSame([BagState::Sealed, self::NAME, null], [$bag->state, $bag->label, $bag->deleted_at]);
        self::assertSame($tagged, hash_file('sha256', $this->bagFolder($job).'/bag-info.txt'));
        self::assertSame(
            [self::NAME],
            Bag::wholes()->where('serial', self::SERIAL)->where('state', BagState::Sealed)->pluck('label')->all(),
        );
    }

    public function test_content_that_changes_meanwhile_is_fetched_again_and_the_copy_still_arrives(): void
    {
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/faults', ['kind' => 'content-changes']);
        $job = $this->backUpOnly(['name' => self::NAME]);
        $bag = $this->backedUp($job);

        self::assertSame([JobState::BackedUp, BagState::Sealed], [$job->state, $bag->state]);
    }

    public function test_it_takes_no_route_and_says_so(): void
    {
        $job = $this->backUpOnly();

        $told = $this->getJson("/api/v1/jobs/{$job->id}")->assertOk();
        self::assertSame(
            [
                'back-up-only',
                ['identify', 'safeguard', 'hand-over'],
                ['pair', 'back-up', 'verify-backup', 'seal-backup'],
            ],
            [$told->json('intent'), $told->json('stages'), array_column($told->json('steps'), 'code')],
        );
        foreach (['plan', 'accept-route', 'choose-again', 'cross-line', 'attest', 'look-first'] as $act) {
            self::assertFalse($told->json("may.{$act}.allowed"), $act);
        }
        self::assertStringContainsString(
            'This job takes no route',
            $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['newestInMajor' => 8]])
                ->assertConflict()
                ->json('detail'),
        );
        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertOk();
        self::assertSame(JobState::Abandoned, $job->refresh()->state);
    }

    public function test_an_encrypted_copy_wants_its_passphrase_and_is_proven_by_it(): void
    {
        $job = $this->backUpOnly(['encryption' => 'encrypted']);
        $this->workUntilProblem($job, StepCode::BackUp, 'passphrase-wanted');
        $this->postJson("/api/v1/jobs/{$job->id}/passphrase", [
            'passphrase' => 'gull pier north sound otter kelp',
            'again' => 'gull pier north sound otter kelp',
        ])->assertOk();
        $bag = $this->backedUp($job);

        self::assertSame([BagState::Sealed, true], [$bag->state, $bag->isEncrypted()]);
        self::assertNotNull($bag->passphrase_proven_at);
        self::assertSame(0, DB::table('held_passphrases')->count(), 'no passphrase outlives its job');
    }

    public function test_a_device_that_another_job_waits_for_or_holds_is_not_taken(): void
    {
        $this->backUpOnly();
        $this->postJson('/api/v1/jobs', ['serial' => self::SERIAL, 'intent' => 'back-up-only'])->assertConflict();
        $this->postJson('/api/v1/jobs', ['serial' => 'SKL-0057', 'intent' => 'sell'])->assertUnprocessable();
        $this->postJson('/api/v1/jobs', ['serial' => 'SKL-0057', 'name' => "two\nlines"])->assertUnprocessable();
        $this->postJson('/api/v1/intake', ['serial' => 'SKL-0094', 'modelName' => 'Fenn 7', 'version' => '9.3'])
            ->assertCreated();
        Artisan::call('queue:work', ['--stop-when-empty' => true, '--sleep' => 0, '--tries' => 0]);
        $this->rig('POST', '/practice/devices/SKL-0094/port', ['port' => '9']);
        self::assertStringContainsString(
            'waits for this device',
            $this->postJson('/api/v1/jobs', ['serial' => 'SKL-0094', 'intent' => 'back-up-only'])
                ->assertConflict()
                ->json('detail'),
        );
        $this->rig('POST', '/practice/devices/SKL-0094/reset', ['small' => true]);
    }
}
