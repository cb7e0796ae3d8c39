<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\Setting;
use App\Models\User;
use App\Shelf\Keeping;
use App\Shelf\Night;
use App\Steps\LiveReadings;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Process\Process;

/** Nights that are closed with a passphrase, and a device that is near by air only. */
final class AtNightTest extends JourneyTestCase
{
    private const NEAR = 'SKL-0125';

    private const PASSPHRASE = 'ebb and flood at the sound';

    protected function tearDown(): void
    {
        Setting::query()->delete();
        parent::tearDown();
    }

    public function test_what_is_taken_at_night_is_closed_with_the_passphrase_that_a_lead_has_chosen(): void
    {
        self::assertStringContainsString(
            'twelve characters or more, or a public key',
            $this->keep(['encrypted' => true])->assertConflict()->json('detail'),
        );
        $this->keep(['encrypted' => true, 'passphrase' => 'short'])->assertUnprocessable();
        self::assertFalse(Keeping::read()->encrypted, 'nothing was kept');
        $told = $this->keep(['encrypted' => true, 'passphrase' => self::PASSPHRASE])->assertOk();
        self::assertSame([true, true], [$told->json('encrypted'), $told->json('passphraseHeld')]);
        self::assertStringNotContainsString(self::PASSPHRASE, (string) $told->getContent());
        self::assertStringNotContainsString(self::PASSPHRASE, (string) DB::table('settings')->get()->toJson());
        self::assertStringNotContainsString(self::PASSPHRASE, (string) DB::table('acts')->get()->toJson());

        $this->pairedBefore();
        app(Night::class)->backUp();
        $job = BenchJob::query()->where('nightly', true)->where('serial', self::SERIAL)->sole();
        $this->workUntil($job, StepCode::VerifyBackup, StepState::Done);
        $bag = Bag::query()->where('bench_job_id', $job->id)->sole();
        self::assertTrue($bag->isEncrypted());
        self::assertNotNull($bag->passphrase_proven_at);
        self::assertSame('schedule', $bag->source);
        self::assertSame(0, DB::table('held_passphrases')->count(), 'it is wiped with its job');
        $this->postJson("/api/v1/shelf/{$bag->id}/look", ['passphrase' => self::PASSPHRASE])->assertOk();

        self::assertFalse($this->keep(['encrypted' => false])->assertOk()->json('passphraseHeld'));
    }

    public function test_closed_for_a_public_key_nothing_secret_is_held_and_its_owner_opens_it(): void
    {
        $home = self::system()->folder.'/owner-key';
        is_dir($home) || mkdir($home, 0o700);
        $usual = ['--batch', '--quiet', '--pinentry-mode', 'loopback', '--passphrase', ''];
        $gpg = static fn (string ...$words): string => (new Process(['gpg', '--homedir', $home, ...$usual, ...$words]))
            ->mustRun()
            ->getOutput();
        $gpg('--quick-generate-key', 'Depot <depot@skerry.example>', 'default', 'default', 'never');
        $this->keep(['encrypted' => true, 'publicKey' => 'no key'])->assertUnprocessable();
        $told = $this->keep(['encrypted' => true, 'publicKey' => $gpg('--armor', '--export')])->assertOk();
        $fingerprint = $told->json('keyFingerprint');
        self::assertSame([false, 40], [$told->json('passphraseHeld'), strlen((string) $fingerprint)]);

        $this->pairedBefore();
        app(Night::class)->backUp();
        $job = BenchJob::query()->where('nightly', true)->where('serial', self::SERIAL)->sole();
        $this->workUntil($job, StepCode::VerifyBackup, StepState::Done);
        $bag = Bag::query()->where('bench_job_id', $job->id)->sole();
        self::assertTrue($bag->isEncrypted());
        self::assertSame([$fingerprint, null], [$bag->closed_for, $bag->passphrase_proven_at]);
        self::assertSame(self::PHOTOS, $bag->counts['photos'] ?? 0);
        self::assertStringContainsString(
            'only who has its secret part',
            $this->postJson("/api/v1/shelf/{$bag->id}/look", ['passphrase' => 'any'])->assertConflict()->json('detail'),
        );
        $inventory = $gpg('--decrypt', self::system()->folder."/bags/{$bag->id}/data/inventory.jsonl.gpg");
        self::assertStringContainsString('"kind":"photos"', $inventory);
    }

    public function test_a_night_whose_passphrase_is_gone_takes_nothing_in_the_clear(): void
    {
        $this->keep(['encrypted' => true, 'passphrase' => self::PASSPHRASE])->assertOk();
        Setting::query()->whereKey('nightly-passphrase')->delete();
        $this->pairedBefore();
        app(Night::class)->backUp();

        self::assertSame(0, BenchJob::query()->where('nightly', true)->count());
        self::assertFalse($this->getJson('/api/v1/keeping')->json('passphraseHeld'));
    }

    public function test_what_is_near_by_air_is_backed_up_once_its_owner_agrees_and_never_installed(): void
    {
        User::factory()->create(['role' => 'lead']);
        $this->signedIn();
        app(LiveReadings::class)->lookAtPorts();
        $row = $this->near();
        self::assertSame([true, null, 'Fenn 7'], [$row['byAir'], $row['agreedBy'], $row['modelName']]);
        foreach (['take-down', 'take-up', 'return-only'] as $intent) {
            self::assertStringContainsString(
                'near by air only',
                $this->postJson('/api/v1/jobs', ['serial' => self::NEAR, 'intent' => $intent])
                    ->assertConflict()
                    ->json('detail'),
            );
        }
        app(Night::class)->backUp();
        self::assertSame(0, BenchJob::query()->where('serial', self::NEAR)->count(), 'nobody has agreed yet');

        $this->putJson('/api/v1/near/'.self::NEAR.'/agreement')->assertNoContent();
        self::assertSame('Teo Lind', $this->near()['agreedBy']);
        app(Night::class)->backUp();
        $job = BenchJob::query()->where('serial', self::NEAR)->sole();
        $this->workUntil($job, StepCode::VerifyBackup, StepState::Done);
        self::assertSame(JobState::BackedUp, $job->refresh()->state);
        self::assertGreaterThan(0, Bag::query()->where('serial', self::NEAR)->sole()->counts['photos'] ?? 0);

        $this->deleteJson('/api/v1/near/'.self::NEAR.'/agreement')->assertNoContent();
        self::assertNull($this->near()['agreedBy']);
    }

    /** @return array<string, mixed> as the Bench shows it */
    private function near(): array
    {
        $ports = $this->getJson('/api/v1/bench')->assertOk()->json('benches.0.ports');

        return array_column($ports, null, 'serial')[self::NEAR];
    }

    private function pairedBefore(): void
    {
        $this->signedIn();
        $this->backedUp($this->backUpOnly());
    }

    /**
     * @param  array<string, mixed>  $differs
     * @return TestResponse<Response>
     */
    private function keep(array $differs): TestResponse
    {
        $this->signedIn(User::factory()->create(['role' => 'lead']));

        return $this->putJson('/api/v1/keeping', $differs + Keeping::read()->fields()->all());
    }
}
