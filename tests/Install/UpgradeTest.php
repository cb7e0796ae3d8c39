<?php

declare(strict_types=1);

namespace Tests\Install;

use PHPUnit\Framework\Attributes\Depends;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;
use Tests\Fault\PatientRig;
use Tests\Fault\PatientVisitor;
use Tests\Fault\StagedJobs;
use Tests\Support\RunningSystem;
use Tests\Support\Visitor;

/**
 * An installation of the program as it was before it could be upgraded, with a job in every stage, gets the program of
 * today; is taken back where a newer one fails; gets another key; and is made again elsewhere from its own backup.
 */
final class UpgradeTest extends TestCase
{
    private const STAND_INS = 9340;

    private static ?RunningSystem $standIns = null;

    private static ?StagedJobs $jobs = null;

    /** @var array<string, string> */
    private static array $stages = [];

    /** @var list<string> lines of the Journal */
    private static array $acts = [];

    public static function setUpBeforeClass(): void
    {
        self::shop()->remove();
        self::elsewhere()->remove();
        self::printed('rm -rf "$1" /var/lib/jade-own-backups', self::earlier());
        self::$standIns = RunningSystem::start('upgrade-stand-ins', self::STAND_INS, ['vendor', 'rig'], 20);
    }

    public static function tearDownAfterClass(): void
    {
        self::shop()->remove();
        self::elsewhere()->remove();
        self::$standIns?->stop();
        self::printed('rm -rf "$1" "$2" /var/lib/jade-own-backups', self::earlier(), self::broken());
    }

    public function test_the_earlier_program_is_installed_and_has_a_job_in_every_stage(): void
    {
        self::printed(
            'mkdir -p "$1/var" && tar -C "$1" -xJf "$2/tests/Install/before-upgrades.tar.xz" && cd "$1" '
                .'&& cp -r "$2/public/build" public/ && mkdir -p resources/ui/api && cp -r "$2/vendor" vendor',
            self::earlier(),
            RunningSystem::root(),
        );
        self::stampAsBuilt(self::earlier());
        $made = self::shop()->install(
            [...self::shop()->firstWords(), '--link', '127.0.0.1:'.(self::$standIns->port + 2)],
            self::earlier(),
        );
        self::assertSame(0, $made->getExitCode(), $made->getOutput().$made->getErrorOutput());
        self::printed('echo "VENDOR_ADDRESSES=127.0.0.1" >>/etc/jade-upgraded/jade.env');
        self::shop()->serve();
        $lead = Visitor::toShop(self::shop());
        self::setUpShop($lead);
        self::$jobs = StagedJobs::open($this->visitor(), new PatientRig(self::$standIns));
        self::$stages = self::$jobs->stages();
        self::assertSame(
            ['identify', 'choose', 'safeguard', 'install', 'return', 'hand-over'],
            array_slice(array_values(self::$stages), 0, 6),
        );
    }

    #[Depends('test_the_earlier_program_is_installed_and_has_a_job_in_every_stage')]
    public function test_it_is_upgraded_with_a_page_meanwhile_and_its_jobs_go_on(): void
    {
        self::$acts = self::journal();
        $seen = [];
        $upgrade = new Process(
            ['bin/install', '--name', 'jade-upgraded', '--upgrade'], RunningSystem::root(), Installed::ENVIRONMENT,
        );
        $upgrade->setTimeout(400)->start();
        while ($upgrade->isRunning()) {
            $seen[] = self::whatPeopleSee();
            usleep(200_000);
        }
        self::assertSame(0, $upgrade->getExitCode(), $upgrade->getOutput().$upgrade->getErrorOutput());
        self::assertContains('503 A newer program is being brought in', $seen);
        self::assertTrue(self::shop()->isUp());
        self::assertSame([], array_diff(self::$acts, self::journal()));
        self::assertSame(1, count(glob('/var/lib/jade-upgraded/upgrades/*/database.sql.gz') ?: []));
        $after = self::$jobs->on($this->visitor());
        self::assertSame(array_keys(self::$stages), array_keys($after->stages()));
        self::assertStringContainsString('good   the database is up to date', self::shop()->artisan('jade:check', '-q')
            .(new Process(['bin/install', '--check', '--name', 'jade-upgraded'], RunningSystem::root()))->mustRun()
                ->getOutput());
    }

    #[Depends('test_it_is_upgraded_with_a_page_meanwhile_and_its_jobs_go_on')]
    public function test_where_the_newer_program_fails_the_earlier_one_runs_again_with_everything_as_it_was(): void
    {
        $acts = self::journal();
        self::printed(
            'mkdir -p "$1" && cd "$2" && cp -r app artisan bin bootstrap compat composer.json config core database '
                .'deploy docs package.json package-lock.json public resources routes tsconfig.json vite.config.ts "$1" '
                .'&& ln -s "$2/node_modules" "$1/node_modules" && cp -r vendor "$1/vendor"',
            self::broken(),
            RunningSystem::root(),
        );
        self::stampAsBuilt(self::broken());
        file_put_contents(self::broken().'/database/migrations/2099_01_01_000099_breaks.php', <<<'PHP'
            <?php
            return new class extends Illuminate\Database\Migrations\Migration {
                public function up(): void {
                    Illuminate\Support\Facades\Schema::drop('side_exports');
                    throw new RuntimeException('This change of tables breaks in its middle.');
                }
            };
            PHP);
        chmod(self::broken(), 0o700); // as a folder in root's home
        $failed = self::shop()->install(['--upgrade'], self::broken());
        self::assertSame(1, $failed->getExitCode(), $failed->getOutput());
        self::assertStringContainsString('The earlier program runs again', $failed->getErrorOutput());
        self::assertFileDoesNotExist('/opt/jade-upgraded/database/migrations/2099_01_01_000099_breaks.php');
        self::assertTrue(self::shop()->isUp());
        self::assertSame([], array_diff($acts, self::journal()));
        self::assertNotFalse(self::shop()->database()->query('SELECT COUNT(*) FROM side_exports'));
    }

    #[Depends('test_where_the_newer_program_fails_the_earlier_one_runs_again_with_everything_as_it_was')]
    public function test_another_key_loses_no_passphrase_that_is_held(): void
    {
        $job = (int) self::shop()->database()->query("SELECT MIN(id) FROM bench_jobs WHERE state = 'open'")
            ->fetchColumn();
        self::tinker("app(App\\Facts\\PassphraseLocker::class)->put(App\\Models\\BenchJob::find({$job}), "
            ."JadeStep\\Core\\Bag\\Passphrase::existing('slack water at noon'));");
        $before = self::shop()->settings()['APP_KEY'];
        $changed = self::shop()->install(['--new-key']);
        self::assertSame(0, $changed->getExitCode(), $changed->getOutput().$changed->getErrorOutput());
        $settings = self::shop()->settings();
        self::assertNotSame($before, $settings['APP_KEY']);
        self::assertArrayNotHasKey('APP_PREVIOUS_KEYS', $settings);
        self::assertSame('slack water at noon', self::tinker(
            "\$held = App\\Models\\HeldPassphrase::find({$job})->ciphertext;"
                .'echo Illuminate\\Support\\Facades\\Crypt::decryptString($held);',
        ));
        self::shop()->database()->exec('DELETE FROM held_passphrases');
    }

    #[Depends('test_another_key_loses_no_passphrase_that_is_held')]
    public function test_it_is_lost_and_made_again_elsewhere_and_every_job_goes_on_to_its_end(): void
    {
        $taken = new Process(['/opt/jade-upgraded/bin/backup', '/var/lib/jade-own-backups'], '/', null, null, 200);
        self::assertSame(0, $taken->run(), $taken->getOutput().$taken->getErrorOutput());
        $acts = self::journal();
        self::shop()->remove();

        $own = (glob('/var/lib/jade-own-backups/jade-step-*') ?: [''])[0];
        $restored = new Process(
            ['bin/restore', $own, '--name', 'jade-elsewhere'], RunningSystem::root(), null, null, 400,
        );
        self::assertSame(0, $restored->run(), $restored->getOutput().$restored->getErrorOutput());
        self::elsewhere()->serve();
        self::assertSame(200, self::elsewhere()->signIn()[0]->getStatusCode());
        self::assertSame([], array_diff($acts, self::journal(self::elsewhere())));
        $check = self::elsewhere()->install(['--check']);
        self::assertSame(0, $check->getExitCode(), $check->getOutput());
        $jobs = self::$jobs->on($this->visitor(self::elsewhere()));
        foreach ($jobs->finish() as $serial => $end) {
            self::assertContains($end, ['done', 'done-with-losses'], $serial);
        }
        self::assertSame([], $jobs->unnamedLosses());
        $over = self::elsewhere()->install(['--from', $own]);
        self::assertSame(1, $over->getExitCode());
        self::assertStringContainsString('nothing is overwritten', $over->getErrorOutput());
    }

    private function visitor(?Installed $shop = null): PatientVisitor
    {
        return PatientVisitor::of(self::$standIns, Visitor::toShop($shop ?? self::shop()));
    }

    private static function shop(): Installed
    {
        return new Installed('jade-upgraded', 9445, 9317);
    }

    /** The same shop under another name: settings, ports and people are those of the own backup. */
    private static function elsewhere(): Installed
    {
        return new Installed('jade-elsewhere', 9445, 9317);
    }

    private static function earlier(): string
    {
        return '/var/lib/jade-earlier-program';
    }

    private static function broken(): string
    {
        return '/var/lib/jade-broken-program';
    }

    /** @return list<string> */
    private static function journal(?Installed $shop = null): array
    {
        return ($shop ?? self::shop())->database()
            ->query("SELECT CONCAT_WS(' ', id, event, who, serial, created_at) FROM acts ORDER BY id")
            ->fetchAll(\PDO::FETCH_COLUMN);
    }

    private static function whatPeopleSee(): string
    {
        try {
            $page = self::shop()->ask('GET', '/');
        } catch (\GuzzleHttp\Exception\GuzzleException) {
            return 'nothing';
        }
        preg_match('~<h1>(.*?)</h1>~', (string) $page->getBody(), $title);

        return $page->getStatusCode().' '.($title[1] ?? '');
    }

    /** Its vendors are the stand-ins, with keys that its lead accepts, and so is its bench. */
    private static function setUpShop(Visitor $lead): void
    {
        foreach (['brightmere', 'osterly'] as $vendor) {
            $lead->ask('POST', '/vendors', [
                'id' => $vendor,
                'name' => ucfirst($vendor),
                'address' => 'http://127.0.0.1:'.(self::$standIns->port + 1)."/{$vendor}",
                'refreshMinutes' => 30,
            ]);
            $keys = $lead->ask('POST', "/vendors/{$vendor}/keys/look");
            foreach ($keys['keys'] ?? [] as $key) {
                $lead->ask('PUT', "/vendors/{$vendor}/keys/{$key['id']}", [
                    'state' => 'accepted',
                    'name' => 'Brought by hand',
                ]);
            }
        }
        $lead->ask('POST', '/almanac/refresh');
        $lead->ask('POST', '/benches', [
            'name' => 'Window bench',
            'linkAddress' => 'http://127.0.0.1:'.(self::$standIns->port + 2),
            'ports' => [],
        ]);
    }

    /** What its libraries and pages are made from is what they were made from: nothing is installed or built again. */
    private static function stampAsBuilt(string $checkout): void
    {
        self::printed(
            'mkdir -p "$1/var/stamps" && cd "$1" && touch resources/ui/api/schema.d.ts && . bin/lib/prepare.sh '
                .'&& printf %s "$(digest_of composer.json compat)" >var/stamps/composer '
                .'&& printf %s "$(digest_of package.json package-lock.json)" >var/stamps/npm '
                .'&& printf %s "$(digest_of resources package-lock.json vite.config.ts tsconfig.json docs/openapi.yaml '
                .'docs/formats)" >var/stamps/front-end && mkdir -p node_modules',
            $checkout,
        );
    }

    private static function tinker(string $code): string
    {
        return (new Process(
            ['bash', '-c', 'set -a; . "$JADE_VAR/jade.env"; cd /opt/jade-upgraded; exec php -r "$0"',
                'require "vendor/autoload.php"; $app = require "bootstrap/app.php"; '
                    .'$app->make(Illuminate\\Contracts\\Console\\Kernel::class)->bootstrap(); '.$code],
            '/',
            ['JADE_VAR' => '/var/lib/jade-upgraded'],
        ))->mustRun()->getOutput();
    }

    private static function printed(string $script, string ...$words): void
    {
        (new Process(['bash', '-c', $script, 'bash', ...array_values($words)], RunningSystem::root(), null, null, 200))
            ->mustRun();
    }
}
