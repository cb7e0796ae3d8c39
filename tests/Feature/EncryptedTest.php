<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Facts\PassphraseLocker;
use App\Models\BenchJob;
use App\Models\HeldPassphrase;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use Symfony\Component\Process\Process;

/** A crossing with an encrypted backup, and where the passphrase is and is not. */
final class EncryptedTest extends FeatureTestCase
{
    protected bool $full = true;

    private const PASSPHRASE = 'harbour light at low tide';

    public function test_an_encrypted_backup_goes_the_whole_way_and_carries_more_kinds(): void
    {
        $job = $this->encryptedJob();
        self::assertNotContains('health', self::planOf($job)['routes'][0]['losses']['lost'] ?? []);
        $this->acceptRoute($job);
        $this->workUntil($job, StepCode::BackUp);
        self::assertSame('passphrase-wanted', $job->step(StepCode::BackUp)->problem->reason ?? null);
        $this->give($job, ['passphrase' => self::PASSPHRASE, 'again' => self::PASSPHRASE])->assertOk();
        $this->workUntil($job, StepCode::CrossLine);

        $bag = $job->safetyBag();
        self::assertNotNull($bag);
        self::assertSame(
            [BagState::Sealed, Encryption::OpenPgp, 1, 1],
            [$bag->state, $bag->encryption, $bag->counts['saved-passwords'] ?? 0, $bag->counts['health'] ?? 0],
        );
        self::assertNotNull($bag->passphrase_proven_at);
        self::assertSame(
            0,
            HeldPassphrase::query()->count(),
            'the passphrase is wiped when the bag was opened with it',
        );
        $this->opensWithoutUs($this->bagFolder($job));

        foreach (['owner-account-at-hand', 'passcode-known'] as $code) {
            $this->putJson("/api/v1/jobs/{$job->id}/attestations/{$code}")->assertOk();
        }
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL])->assertOk();
        $this->workUntil($job, StepCode::PutBack);
        $this->give($job, ['passphrase' => 'not the one that it was'])->assertOk();
        $this->workUntil($job, StepCode::PutBack);
        self::assertSame(0, HeldPassphrase::query()->count());
        $this->give($job, ['passphrase' => self::PASSPHRASE])->assertOk();
        $this->workUntil($job, StepCode::HandOver);

        self::assertSame(
            [0, 180, 1, 1],
            [
                $job->proof?->missing() ?? null,
                ...array_map(
                    static fn (string $k): int => array_column(self::proofOf($job)['kinds'] ?? [], 'same', 'kind')[$k],
                    ['photos', 'health', 'saved-passwords'],
                ),
            ],
        );
        self::assertSame(0, HeldPassphrase::query()->count());
        self::assertSame(
            '8.7.0',
            (string) BagReader::open(
                self::system()->folder.'/bags/'.$job->loweredCopy((string) $job->safetyBag()?->id)?->id,
            )->description()->declaredVersion,
        );
    }

    /** Neither the queue, nor the logs, nor any table, nor the answer holds it in the clear. */
    public function test_the_passphrase_lies_nowhere_in_the_clear(): void
    {
        $job = $this->encryptedJob();
        $this->acceptRoute($job);
        $this->workUntil($job, StepCode::BackUp);
        $answer = $this->give($job, ['passphrase' => self::PASSPHRASE, 'again' => self::PASSPHRASE])->assertOk();

        self::assertStringNotContainsString(self::PASSPHRASE, (string) $answer->getContent());
        $s = self::system()->settings('owner.env') + self::system()->settings();
        $dump = (new Process([
            'mariadb-dump',
            '--no-defaults',
            '-h127.0.0.1',
            "-P{$s['DB_PORT']}",
            "-u{$s['DB_OWNER_USERNAME']}",
            "-p{$s['DB_OWNER_PASSWORD']}",
            $s['DB_DATABASE'],
        ]))
            ->mustRun()
            ->getOutput();
        self::assertStringContainsString('held_passphrases', $dump);
        self::assertStringNotContainsString(self::PASSPHRASE, $dump);
        self::assertSame(1, HeldPassphrase::query()->count());
        $grep = new Process([
            'grep',
            '-rlF',
            self::PASSPHRASE,
            self::system()->folder.'/storage',
            self::system()->folder.'/bags',
            self::system()->folder.'/gnupg',
        ]);
        $grep->run();
        self::assertSame('', $grep->getOutput());

        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertOk();
        self::assertSame(0, HeldPassphrase::query()->count(), 'leaving the job wipes it');
    }

    public function test_a_passphrase_that_cannot_be_used_is_refused_with_what_to_do(): void
    {
        $job = $this->encryptedJob();
        $words = fn (array $said): string => $this->give($job, $said)->assertUnprocessable()->json('errors.0.message');

        self::assertStringContainsString('at least 12 characters', $words(['passphrase' => 'short']));
        self::assertStringContainsString(
            'not the same',
            $words(['passphrase' => self::PASSPHRASE, 'again' => 'another one entirely']),
        );
        self::assertMatchesRegularExpression(
            '/\A[a-z]+( [a-z]+){5}\z/',
            $this->getJson('/api/v1/passphrase-offer')->assertOk()->json('words'),
        );
        $plain = $this->putJson("/api/v1/jobs/{$job->id}/backup", [
            'encryption' => 'plain',
            'sideExports' => [],
        ])->assertOk();
        self::assertSame('plain', $plain->json('backup.encryption'));
        $this->give($job, ['passphrase' => self::PASSPHRASE])->assertConflict();
        $this->putJson("/api/v1/jobs/{$job->id}/backup", ['encryption' => 'rot13', 'sideExports' => ['health']])
            ->assertUnprocessable()
            ->assertJsonCount(2, 'errors');
    }

    public function test_a_held_passphrase_runs_out(): void
    {
        $job = $this->encryptedJob();
        $locker = app(PassphraseLocker::class);
        $locker->put($job, Passphrase::parse(self::PASSPHRASE));
        self::assertNotNull($locker->openPgp($job));
        DB::table('held_passphrases')->update(['expires_at' => '2026-01-01 00:00:00']);

        self::assertNull($locker->openPgp($job));
        $locker->wipeExpired();
        self::assertSame(0, HeldPassphrase::query()->count());
    }

    public function test_what_is_attested_of_the_cloud_is_used_by_the_planner(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        $cloud = [
            'backup' => ['takenAt' => '2026-11-01T10:00:00Z', 'madeOn' => '8.7.0', 'kinds' => ['photos', 'messages']],
            'syncs' => ['contacts' => '2026-11-24T10:00:00Z'],
        ];

        $told = $this->putJson("/api/v1/jobs/{$job->id}/cloud", $cloud)->assertOk();

        self::assertSame('Teo Lind', $told->json('cloud.by'));
        $situation = $this->getJson("/api/v1/jobs/{$job->id}/situation")->json();
        self::assertSame(
            ['in-the-cloud', 'cloud', '8.7.0'],
            [$situation['backups'][0]['id'], $situation['backups'][0]['where'], $situation['backups'][0]['madeOn']],
        );
        self::assertSame(
            '2026-11-24T10:00:00Z',
            array_column($situation['device']['kinds'], 'syncedAt', 'kind')['contacts'],
        );
        $this->putJson("/api/v1/jobs/{$job->id}/cloud", [
            'backup' => ['takenAt' => 'last week'] + $cloud['backup'],
        ])->assertUnprocessable();
        $this->putJson("/api/v1/jobs/{$job->id}/cloud", [])
            ->assertOk()
            ->assertJsonPath('cloud', null);
    }

    private function encryptedJob(): BenchJob
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        $this->putJson("/api/v1/jobs/{$job->id}/backup", [
            'encryption' => 'encrypted',
            'sideExports' => [],
        ])->assertOk();
        self::assertSame(StepState::NeedsHand, $job->step(StepCode::ChooseRoute)->state);

        return $job->refresh();
    }

    /**
     * @param  array<string, string>  $said
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function give(BenchJob $job, array $said): \Illuminate\Testing\TestResponse
    {
        return $this->postJson("/api/v1/jobs/{$job->id}/passphrase", $said);
    }

    /** GnuPG and tar open what the bench wrote; sha256sum agrees. */
    private function opensWithoutUs(string $bag): void
    {
        $script =
            'cd "$1" && sha256sum --quiet -c manifest-sha256.txt && h=$(mktemp -d) && gpg --homedir "$h" '
                .'--batch --quiet --pinentry-mode loopback --passphrase "$2" -d data/photos-0001.tar.gpg | tar -t | '
                .'wc -l; rm -rf "$h"';
        $process = new Process(['bash', '-c', $script, 'bash', $bag, self::PASSPHRASE]);
        self::assertSame(0, $process->run(), $process->getErrorOutput());
        self::assertSame(180, (int) $process->getOutput());
    }
}
