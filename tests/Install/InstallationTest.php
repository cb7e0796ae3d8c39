<?php

declare(strict_types=1);

namespace Tests\Install;

use PHPUnit\Framework\Attributes\Depends;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;

/**
 * A shop's own installation on this machine, under a name of its own: made, checked, attacked, broken, and taken away
 * again. Where systemd does not run its units are held against what systemd says of them, and `bin/serve` runs it.
 */
final class InstallationTest extends TestCase
{
    private const NAME = 'jade-trial';

    private const PORT = 9443;

    private const DATABASE_PORT = 9316;

    /** How exposed systemd says that a unit is, from 0 to 10; below 2.5 it says OK with room to spare. */
    private const MOST_EXPOSED = 2.5;

    private static string $said = '';

    private static function shop(): Installed
    {
        return new Installed(self::NAME, self::PORT, self::DATABASE_PORT);
    }

    public static function setUpBeforeClass(): void
    {
        self::shop()->remove();
        $made = self::shop()->install(self::shop()->firstWords());
        self::assertSame(0, $made->getExitCode(), $made->getOutput().$made->getErrorOutput());
        self::$said = $made->getOutput();
        self::shop()->serve();
    }

    public static function tearDownAfterClass(): void
    {
        self::shop()->remove();
    }

    public function test_it_answers_over_tls_by_a_certificate_of_its_own_making_that_vouches_for_this_host_only(): void
    {
        self::assertStringContainsString('https://'.Installed::HOST.':'.self::PORT, self::$said);
        self::assertStringContainsString('/etc/'.self::NAME.'/tls/authority.pem', self::$said);
        $answer = self::shop()->ask('GET', '/api/v1/alive');
        self::assertSame(204, $answer->getStatusCode());
        self::assertNotSame('', $answer->getHeaderLine('Strict-Transport-Security'));
        // nothing is served in the clear
        $clear = self::printed(['curl', '-s', 'http://127.0.0.1:'.self::PORT.'/']);
        self::assertStringContainsString('plain HTTP', $clear);
        $file = '/etc/'.self::NAME.'/tls/authority.pem';
        $authority = self::printed(['openssl', 'x509', '-noout', '-text', '-in', $file]);
        self::assertMatchesRegularExpression('/Permitted:\s+DNS:'.preg_quote(Installed::HOST).'/', $authority);
        self::assertStringContainsString('pathlen:0', $authority);
        foreach (['-tls1', '-tls1_1'] as $old) {
            $dialled = 'openssl s_client -connect 127.0.0.1:'.self::PORT." {$old} </dev/null 2>&1";
            self::assertStringNotContainsString('Cipher is ECDHE', self::printed(['bash', '-c', $dialled]));
        }
    }

    public function test_nothing_of_the_demo_is_there_and_the_lead_who_was_made_comes_in(): void
    {
        foreach (['lead', 'bench', 'viewer'] as $who) {
            self::assertSame(422, self::shop()->signIn(["{$who}@skerry.example", 'tide-table-9'])[0]->getStatusCode());
        }
        [$answer, $cookies] = self::shop()->signIn(Installed::LEAD);
        self::assertSame(200, $answer->getStatusCode(), (string) $answer->getBody());
        self::assertStringContainsString('"leads":true', (string) $answer->getBody());
        self::assertNotNull($cookies->getCookieByName('__Host-jade_step_session'));
        foreach ($cookies->toArray() as $cookie) {
            self::assertTrue($cookie['Secure'], $cookie['Name']);
        }
        $told = fn (string $path): mixed => json_decode(
            (string) self::shop()->ask('GET', "/api/v1{$path}", $cookies)->getBody(),
            true,
        );
        self::assertSame(['Maren Dow'], array_column($told('/people')['people'], 'name'));
        self::assertSame([], $told('/vendors')['vendors']);
        self::assertSame([], $told('/shelf')['bags']);
    }

    public function test_another_account_of_the_machine_reads_nothing_and_opens_no_database(): void
    {
        $data = '/var/lib/'.self::NAME;
        $settings = '/etc/'.self::NAME;
        $places = [
            "{$settings}/jade.env", "{$settings}/owner.env", "{$settings}/tls/host.key", "{$data}/bags", "{$data}/logs",
            "{$data}/mariadb/mysql", "{$data}/accounts.sql", "{$data}/storage/logs", "{$data}/run",
        ];
        foreach (
            $places as $place
        ) {
            self::assertFileExists($place);
            $read = self::as('nobody', [is_dir($place) ? 'ls' : 'cat', $place]);
            self::assertNotSame(0, $read->getExitCode(), "nobody reads {$place}");
        }
        foreach ([['-uroot'], ['-uroot', '--skip-password'], [], ['-ujade_step'], ['-umysql']] as $login) {
            foreach (['nobody', 'root', self::NAME, self::NAME.'-db'] as $account) {
                $asked = self::as($account, [
                    'mariadb', '--no-defaults', '-h127.0.0.1', '-P'.self::DATABASE_PORT, ...$login, '-e', 'SELECT 1',
                ]);
                self::assertNotSame(0, $asked->getExitCode(), "{$account} came in with ".implode(' ', $login));
            }
        }
        $socket = ['mariadb', '--no-defaults', "-S{$data}/mariadb/mariadbd.sock", '-uroot', '-e', 'SELECT 1'];
        foreach (['nobody', 'root', self::NAME, self::NAME.'-db'] as $account) {
            self::assertNotSame(0, self::as($account, $socket)->getExitCode(), "{$account} by the socket");
        }
    }

    public function test_the_running_program_may_change_rows_and_neither_tables_nor_files(): void
    {
        $s = self::shop()->settings('jade.env');
        $database = new \PDO(
            'mysql:host=127.0.0.1;port='.self::DATABASE_PORT.';dbname=jade_step',
            $s['DB_USERNAME'],
            $s['DB_PASSWORD'],
            [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION],
        );
        self::assertNotFalse($database->query('SELECT COUNT(*) FROM acts'));
        foreach (
            [
                'DROP TABLE acts', 'TRUNCATE acts', 'ALTER TABLE users ADD x INT', "UPDATE acts SET who = 'x'",
                'DELETE FROM acts', 'DROP TRIGGER acts_no_update', 'CREATE TABLE x (y INT)', 'DROP DATABASE jade_step',
                "SELECT 1 INTO OUTFILE '/tmp/jade-trial-outfile'", 'SELECT * FROM mysql.global_priv',
                "SET GLOBAL general_log_file = '/tmp/x'", 'GRANT ALL ON *.* TO CURRENT_USER',
            ] as $sql
        ) {
            try {
                $database->query($sql);
                self::fail("It may: {$sql}");
            } catch (\PDOException $e) {
                self::assertStringContainsString('denied', $e->getMessage(), $sql);
            }
        }
        self::assertNull($database->query("SELECT LOAD_FILE('/etc/passwd')")->fetchColumn());
        self::assertFileDoesNotExist('/tmp/jade-trial-outfile');
        $owner = self::shop()->settings('owner.env')['DB_OWNER_PASSWORD'];
        foreach (self::processes() as $pid => $what) {
            $environment = (string) @file_get_contents("/proc/{$pid}/environ");
            self::assertStringNotContainsString($owner, $environment, $what);
            if (str_contains($what, 'nginx') || str_contains($what, 'mariadbd')) {
                self::assertStringNotContainsString($s['APP_KEY'], $environment, $what);
            }
        }
    }

    public function test_no_process_of_it_is_roots_but_the_one_that_watches(): void
    {
        $whose = [];
        foreach (self::processes() as $pid => $what) {
            $whose[posix_getpwuid((int) fileowner("/proc/{$pid}"))['name'] ?? '?'][] = $what;
        }
        foreach ($whose['root'] ?? [] as $what) {
            self::assertStringContainsString('bin/serve', $what);
        }
        self::assertGreaterThanOrEqual(6, count($whose[self::NAME] ?? []));
        $databases = array_filter(
            $whose[self::NAME.'-db'] ?? [],
            static fn (string $what): bool => str_contains($what, '/var/lib/'.self::NAME.'/'),
        );
        self::assertCount(1, $databases);
        foreach (array_keys(self::processes()) as $pid) {
            $status = (string) @file_get_contents("/proc/{$pid}/status");
            if (! str_contains($status, "Uid:\t0\t")) {
                self::assertMatchesRegularExpression('/^CapEff:\s+0+$/m', $status);
                self::assertMatchesRegularExpression('/^NoNewPrivs:\s+1$/m', $status);
            }
        }
    }

    public function test_its_units_are_units_and_let_nothing_out(): void
    {
        foreach (['database', 'web', 'worker@'] as $unit) {
            $file = '/etc/'.self::NAME.'/'.self::NAME."-{$unit}.service";
            $verified = new Process(['systemd-analyze', 'verify', '--recursive-errors=no', $file]);
            $verified->run();
            self::assertSame('', trim($verified->getOutput().$verified->getErrorOutput()), $unit);
            $security = self::printed(['systemd-analyze', 'security', '--offline=true', '--no-pager', $file]);
            self::assertSame(1, preg_match('/exposure level for .*: ([\d.]+)/', $security, $m), $security);
            self::assertLessThan(self::MOST_EXPOSED, (float) $m[1], $unit);
        }
    }

    public function test_the_check_finds_it_well_and_says_what_is_wrong_when_something_is(): void
    {
        $check = static function (): Process {
            $p = new Process(['bin/install', '--check', '--name', self::NAME], RunningSystem::root(), null, null, 120);
            $p->run();

            return $p;
        };
        $well = $check();
        self::assertSame(0, $well->getExitCode(), $well->getOutput().$well->getErrorOutput());
        $settings = '/etc/'.self::NAME.'/jade.env';
        $faults = [
            'settings are read by nobody else' => ["chmod 644 {$settings}", "chmod 640 {$settings}"],
            'data is read by nobody else' => [
                'chmod 755 /var/lib/jade-trial/bags',
                'chmod 700 /var/lib/jade-trial/bags',
            ],
            'the program is nobody\'s to change' => [
                'chmod o+w /opt/jade-trial/artisan',
                'chmod o-w /opt/jade-trial/artisan',
            ],
            'nothing is shown of faults' => ["echo APP_DEBUG=true >>{$settings}", "sed -i /APP_DEBUG/d {$settings}"],
        ];
        foreach ($faults as $what => [$break, $mend]) {
            self::printed(['bash', '-c', $break]);
            $told = $check();
            self::printed(['bash', '-c', $mend]);
            self::assertSame(1, $told->getExitCode(), $what);
            self::assertStringContainsString("WRONG  {$what}", $told->getOutput());
        }
        self::assertSame(0, $check()->getExitCode());
    }

    public function test_a_killed_master_leaves_no_orphan_and_comes_back(): void
    {
        foreach (['php-fpm: master', 'nginx: master', 'bin/service web', 'mariadbd', 'queue:work'] as $master) {
            $is = static fn (string $what): bool => str_contains($what, $master);
            $victims = array_keys(array_filter(self::processes(), $is));
            self::assertNotSame([], $victims, $master);
            $before = self::processes();
            posix_kill($victims[0], SIGKILL);
            RunningSystem::waitUntil(
                static fn (): bool => ! isset(self::processes()[$victims[0]])
                    && count(self::masters()) === count(self::masters($before))
                    && self::shop()->isUp(),
                20,
                "after a killed {$master} it did not come back",
            );
        }
        foreach (['web-1', 'mariadb-1', 'worker-1'] as $log) {
            $text = (string) file_get_contents('/var/lib/'.self::NAME."/logs/{$log}.log");
            self::assertLessThan(3, substr_count($text, 'in use'), $log);
            self::assertLessThan(400, substr_count($text, "\n"), $log);
        }
    }

    #[Depends('test_nothing_of_the_demo_is_there_and_the_lead_who_was_made_comes_in')]
    public function test_made_again_it_keeps_settings_and_people(): void
    {
        $before = self::shop()->settings('jade.env');
        $tls = '/etc/'.self::NAME.'/tls';
        $authority = (string) file_get_contents("{$tls}/authority.pem");
        rename("{$tls}/host.pem", "{$tls}/old.pem"); // as if its last month had come
        $again = self::shop()->install([]);
        self::assertSame(0, $again->getExitCode(), $again->getOutput().$again->getErrorOutput());
        self::assertStringEqualsFile("{$tls}/authority.pem", $authority, 'nobody has to trust anew');
        self::assertFileNotEquals("{$tls}/old.pem", "{$tls}/host.pem");
        $signed = self::printed(['openssl', 'verify', '-CAfile', "{$tls}/authority.pem", "{$tls}/host.pem"]);
        self::assertStringContainsString('host.pem: OK', $signed);
        self::assertSame($before, self::shop()->settings('jade.env'));
        RunningSystem::waitUntil(static fn (): bool => self::shop()->isUp(), 30, 'it does not answer');
        self::assertSame(200, self::shop()->signIn(Installed::LEAD)[0]->getStatusCode());
        $again = new Process(
            [
                'bin/service', 'artisan', 'jade:lead', '--name=Ivo Stone', '--address=ivo@shop.example',
                '--password-from-input',
            ],
            '/opt/'.self::NAME,
            ['JADE_VAR' => '/var/lib/'.self::NAME, 'JADE_ACCOUNT' => self::NAME],
            "short\n",
        );
        self::assertSame(1, $again->run());
        self::assertStringContainsString('A password has 12 to 128 characters', $again->getOutput());
        self::assertSame(422, self::shop()->signIn(['ivo@shop.example', 'short'])[0]->getStatusCode());
    }

    public function test_a_database_and_a_certificate_of_the_shops_are_used_as_they_are(): void
    {
        $shop = '/var/lib/'.self::NAME.'-shop';
        $second = 'jade-second';
        self::printed(['rm', '-rf', $shop]);
        self::printed(['bash', '-c', 'cd "$1" && . bin/lib/prepare.sh && make_instance "$2" 9320 1', 'bash',
            RunningSystem::root(), $shop]);
        self::printed(['openssl', 'req', '-x509', '-newkey', 'rsa:2048', '-noenc', '-days', '90', '-subj', '/CN=shop',
            '-addext', 'subjectAltName=DNS:'.Installed::HOST,
            '-keyout', "{$shop}/host.key", '-out', "{$shop}/host.pem"]);
        $database = new Process(['setsid', 'bin/service', 'mariadb'], RunningSystem::root(), ['JADE_VAR' => $shop]);
        $database->setTimeout(null);
        $database->start();
        $install = static fn (string ...$words): Process => new Process(
            ['bin/install', '--name', $second, ...array_values($words)],
            RunningSystem::root(),
            self::settingsOf("{$shop}/jade.env") + self::settingsOf("{$shop}/owner.env"),
            '',
            300,
        );
        try {
            RunningSystem::waitUntil(static fn (): bool => @fsockopen('127.0.0.1', 9323) !== false, 60, 'no database');
            $certificate = ['--certificate', "{$shop}/host.pem", '--key', "{$shop}/host.key"];
            $given = ['--host', Installed::HOST, '--port', '9444', '--database', '127.0.0.1:9323'];
            $install(...$given, ...$certificate)->mustRun();
            self::assertFileEquals("{$shop}/host.pem", "/etc/{$second}/tls/host.pem");
            self::assertFileDoesNotExist("/etc/{$second}/tls/authority.pem");
            self::assertFileDoesNotExist("/etc/{$second}/{$second}-database.service");
            self::assertSame([], glob("/var/lib/{$second}/mariadb/*"));
            $check = $install('--check');
            $check->run();
            $good = ['the certificate fits', 'the database is up to date', 'the program may change rows and no tables'];
            foreach ($good as $what) {
                self::assertStringContainsString("good   {$what}", $check->getOutput());
            }
            self::assertStringContainsString('WRONG  there is a lead', $check->getOutput());
            self::assertSame(1, $check->getExitCode());
        } finally {
            $install('--remove', '--with-data')->run();
            $database->stop(20);
            self::printed(['rm', '-rf', $shop]);
        }
        self::assertDirectoryDoesNotExist("/var/lib/{$second}");
        self::assertDirectoryDoesNotExist("/opt/{$second}");
        self::assertFalse(posix_getpwnam($second));
    }

    /** @return array<int, string> what runs of it, by process */
    private static function processes(): array
    {
        $found = [];
        foreach (glob('/proc/[0-9]*') ?: [] as $folder) {
            $line = str_replace("\0", ' ', (string) @file_get_contents("{$folder}/cmdline"));
            $owner = @fileowner($folder);
            $name = $owner === false ? '' : posix_getpwuid($owner)['name'] ?? '';
            if (str_starts_with($name, self::NAME) || str_contains($line, '/opt/'.self::NAME.'/bin/serve')) {
                $found[(int) basename($folder)] = trim($line);
            }
        }

        return array_filter($found, static fn (string $w): bool => $w !== '' && ! str_contains($w, 'setsid'));
    }

    /**
     * @param  array<int, string>|null  $of
     * @return list<string> those that there is a fixed number of
     */
    private static function masters(?array $of = null): array
    {
        return array_values(array_filter(
            $of ?? self::processes(),
            static fn (string $w): bool => preg_match(
                '/master|nginx: worker|mariadbd|queue:work|bin\/service/',
                $w,
            ) === 1,
        ));
    }

    /** @return array<string, string> */
    private static function settingsOf(string $file): array
    {
        $settings = [];
        foreach (file($file, FILE_IGNORE_NEW_LINES) ?: [] as $line) {
            [$name, $value] = explode('=', $line, 2);
            $settings[$name] = $value;
        }

        return $settings;
    }

    /** @param  list<string>  $command */
    private static function as(string $account, array $command): Process
    {
        $process = new Process(['setpriv', "--reuid={$account}", '--clear-groups', ...$command], '/');
        $process->run();

        return $process;
    }

    /** @param  list<string>  $command */
    private static function printed(array $command): string
    {
        $process = new Process($command);
        $process->run();

        return $process->getOutput().$process->getErrorOutput();
    }
}
