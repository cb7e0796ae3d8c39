<?php

declare(strict_types=1);

namespace Tests\Support;

use Symfony\Component\Process\Process;

/** A whole instance of the product in a folder of its own: database, stand-ins, workers and web server. */
final class RunningSystem
{
    /** For an instance that is measured or shown: its packages are as large as the demo's. */
    public const PACKAGES_AS_USUAL = ['VENDOR_PACKAGES' => '', 'VENDOR_PACKAGE_SHARE' => '1'];

    private const START_SECONDS = 60;

    /** How much longer than usual is waited: a machine that does much else is slow, and still right. */
    public const PATIENCE = 3;

    private const PORTS_OF_A_LANE = 200;

    private const PORT_FOR_TABLES = 8690;

    /** @var array<string, Process> */
    private array $services = [];

    /** @var array<string, true> services that run as another machine's would, by name */
    private array $ofOthers = [];

    /** @param  array<string, string>  $environment beside what the instance's own settings say */
    private function __construct(
        public readonly string $folder,
        public readonly int $port,
        private readonly array $environment,
    ) {
    }

    /**
     * @param  list<string>  $services  of bin/service; `worker` may stand twice
     * @param  float  $speed  how much faster than usual the simulated devices are
     * @param  array<string, string>  $environment
     */
    public static function start(string $name, int $port, array $services, float $speed, array $environment = []): self
    {
        $system = self::made($name, $port, $speed, $environment);
        $port = $system->port;
        self::copy(self::tables(), "{$system->folder}/mariadb");
        $system->launch('mariadb', $port + 3);
        foreach (array_intersect(['vendor', 'rig'], $services) as $service) {
            $system->launch($service, $port + ($service === 'vendor' ? 1 : 2));
        }
        $system->artisan('db:seed', '--class=Database\\Seeders\\DemoSeeder', '--force');
        $system->launchAll($services);

        return $system;
    }

    /**
     * A folder with settings and nothing else.
     *
     * @param  array<string, string>  $environment
     */
    private static function made(string $name, int $port, float $speed, array $environment): self
    {
        $port = self::port($port);
        $folder = self::folderOf($name);
        self::assertPortsAreFree($port);
        self::shell('chmod -R u+w "$1" 2>/dev/null; rm -rf "$1"', $folder);
        // other links and vendors that a test has run on this machine too
        self::shell(
            'export LINK_ADDRESSES=127.0.0.1 VENDOR_ADDRESSES=127.0.0.1; . bin/lib/prepare.sh; need_accounts; '
                .'mkdir -p var/test && chmod go+x var; ! is_root || chown "$service_account:" var/test; '
                .'make_instance "$1" "$2" "$3"',
            $folder,
            (string) $port,
            (string) $speed,
        );

        return self::in($folder, $port, $environment);
    }

    /**
     * A database's files with the product's tables and no row: made once by whoever needs it first, and copied for
     * each instance. Another version of the tables makes another one, and so does root, whose databases run as an
     * account of their own.
     */
    private static function tables(): string
    {
        $from = [...glob(self::root().'/database/migrations/*.php') ?: [], self::root().'/deploy/accounts.sql'];
        $version = substr(hash('sha256', implode("\n", array_map(file_get_contents(...), $from))), 0, 12);
        $name = posix_geteuid() === 0 ? 'tables-of-root' : 'tables';
        $tables = self::root()."/var/test/{$name}-{$version}";
        is_dir(dirname($tables)) || mkdir(dirname($tables), 0o755, true);
        $lock = fopen("{$tables}.lock", 'c') ?: throw new \RuntimeException("{$tables}.lock cannot be written.");
        flock($lock, LOCK_EX);
        if (! is_dir($tables)) {
            $empty = self::made($name, self::PORT_FOR_TABLES + (posix_geteuid() === 0 ? 4 : 0), 1, []);
            $empty->launch('mariadb', $empty->port + 3);
            $empty->command('migrate', '--quiet');
            $empty->stop();
            rename("{$empty->folder}/mariadb", $tables);
        }
        flock($lock, LOCK_UN);

        return $tables;
    }

    private static function copy(string $from, string $to): void
    {
        self::shell('cp -a "$1/." "$2"', $from, $to);
    }

    /**
     * Starts what lies in a folder already: an instance that was restored.
     *
     * @param  list<string>  $services
     * @param  array<string, string>  $environment
     */
    public static function resume(string $name, int $port, array $services, array $environment = []): self
    {
        $port = self::port($port);
        $system = self::in(self::folderOf($name), $port, $environment);
        $system->launch('mariadb', $port + 3);
        $system->launchAll($services);

        return $system;
    }

    /** @param  array<string, string>  $environment */
    private static function in(string $folder, int $port, array $environment): self
    {
        $system = new self(
            $folder,
            $port,
            $environment + [
                'JADE_VAR' => $folder,
                'CACHE_STORE' => 'database', // as it runs; tests in one process keep theirs in memory
                // what takes its time to make is made once for all of them
                'RIG_ALBUM' => self::root().'/var/test/album',
                'VENDOR_PACKAGES' => self::root().'/var/test/packages',
                'VENDOR_PACKAGE_SHARE' => '0.2',
                'DB_FLUSH' => '0',
                'DB_OPTIONS' => '--innodb-log-file-size=8M', // it is copied with each instance
                'ARGON_MEMORY' => '1024',
                'ARGON_TIME' => '1',
                'JADE_HEARTBEAT_LOST' => '3',
            ],
        );
        register_shutdown_function($system->stop(...));

        return $system;
    }

    /** @param  list<string>  $services */
    private function launchAll(array $services): void
    {
        foreach ($services as $i => $service) {
            match ($service) {
                'worker' => $this->launch("worker-{$i}", null),
                'web' => $this->launch('web', $this->port),
                default => null,
            };
        }
    }

    /** Tests that run side by side have instances of their own, each on ports of its own. */
    public static function port(int $port): int
    {
        return $port + self::PORTS_OF_A_LANE * self::lane();
    }

    /** Where an instance of this name lies, or will lie. */
    public static function folderOf(string $name): string
    {
        return self::root().'/var/test/'.$name.(self::lane() === 0 ? '' : '-'.self::lane());
    }

    /** @return int 0 where tests run one after the other, else from 1 on */
    private static function lane(): int
    {
        return (int) getenv('TEST_TOKEN');
    }

    public function address(): string
    {
        return "http://127.0.0.1:{$this->port}";
    }

    /** @return string what the command printed */
    public function artisan(string ...$words): string
    {
        return $this->command('artisan', ...$words);
    }

    /** @return string what one of bin/service's commands printed */
    private function command(string ...$words): string
    {
        return (new Process(
            ['bin/service', ...array_values($words)],
            self::root(),
            $this->environment,
            null,
            120,
        ))
            ->mustRun()
            ->getOutput();
    }

    /**
     * Starts one more service, or one that was killed.
     *
     * @param  string  $name  of a service, with whatever tells it from others of its sort behind it
     * @param  string|null  $checkout  where it runs as another machine's would, which nobody here starts again
     */
    public function launch(string $name, ?int $port, ?string $checkout = null): void
    {
        if ($checkout !== null) {
            $this->ofOthers[$name] = true;
        }
        $service = str_starts_with($name, 'worker') ? 'worker' : explode('-', $name)[0];
        // a session of its own, so that a kill takes the service's children along
        $process = new Process(
            ['setsid', 'bin/service', $service],
            $checkout ?? self::root(),
            $this->environment,
            null,
            null,
        );
        $process->disableOutput();
        $process->start();
        $this->services[$name] = $process;
        if ($port !== null) {
            self::waitUntil(
                static fn (): bool => @fsockopen('127.0.0.1', $port) !== false,
                self::START_SECONDS,
                "{$name} did not start",
            );
        }
    }

    /** The process group of a running service. */
    public function groupOf(string $name): int
    {
        return $this->services[$name]->getPid() ?? throw new \LogicException("{$name} does not run.");
    }

    /** Kills a service and its children without a word, as a crash would. */
    public function kill(string $name): void
    {
        while ($this->services[$name]->isRunning()) {
            // again until it works: one that has only just been started leads no session yet
            $pid = $this->services[$name]->getPid();
            $pid === null || posix_kill(-$pid, SIGKILL);
            usleep(10_000);
        }
        unset($this->services[$name]);
    }

    /** Starts again what has ended by itself, as bin/start does. */
    public function revive(): void
    {
        foreach ($this->services as $name => $process) {
            if (! $process->isRunning() && ! isset($this->ofOthers[$name])) {
                $this->launch(
                    $name,
                    match (explode('-', $name)[0]) {
                        'mariadb' => $this->port + 3,
                        'rig' => $this->port + 2,
                        'vendor' => $this->port + 1,
                        'web' => $this->port,
                        default => null,
                    },
                );
            }
        }
    }

    public function stop(): void
    {
        foreach (array_reverse($this->services) as $process) {
            $pid = $process->getPid();
            $pid === null || posix_kill(-$pid, SIGTERM);
        }
        foreach ($this->services as $process) {
            $pid = $process->getPid();
            $until = microtime(true) + 8;
            while ($process->isRunning() && microtime(true) < $until) {
                usleep(50_000);
            }
            $pid === null || posix_kill(-$pid, SIGKILL);
        }
        $this->services = [];
    }

    /** The database as the running program may use it. */
    public function database(): \PDO
    {
        $s = $this->settings();

        return $this->connection($s['DB_USERNAME'], $s['DB_PASSWORD']);
    }

    /** The database as its owner, who changes tables. */
    public function ownDatabase(): \PDO
    {
        $s = $this->settings('owner.env');

        return $this->connection($s['DB_OWNER_USERNAME'], $s['DB_OWNER_PASSWORD']);
    }

    private function connection(string $user, string $password): \PDO
    {
        $s = $this->settings();
        $last = new \LogicException('A database has a host.');
        foreach (explode(',', $s['DB_HOST']) as $host) {
            try {
                return new \PDO(
                    "mysql:host={$host};port={$s['DB_PORT']};dbname={$s['DB_DATABASE']}",
                    $user,
                    $password,
                    [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION],
                );
            } catch (\PDOException $e) {
                $last = $e;
            }
        }
        throw $last;
    }

    /** @return string the file of a package, as its vendor has it */
    public static function package(string $vendor, string $pattern): string
    {
        return glob(self::root()."/var/test/packages/{$vendor}/{$pattern}")[0]
            ?? throw new \RuntimeException("{$vendor} has no package {$pattern}.");
    }

    /** @return array<string, string> */
    public function settings(string $file = 'jade.env'): array
    {
        $settings = [];
        foreach (file("{$this->folder}/{$file}", FILE_IGNORE_NEW_LINES) ?: [] as $line) {
            [$name, $value] = explode('=', $line, 2);
            $settings[$name] = $value;
        }

        return $settings;
    }

    public static function root(): string
    {
        return dirname(__DIR__, 2);
    }

    /**
     * @param  callable(): bool  $seen
     * @param  string|\Closure(): string  $otherwise  what is told where it was not seen
     */
    public static function waitUntil(callable $seen, float $seconds, string|\Closure $otherwise): void
    {
        $seconds *= self::PATIENCE;
        $until = microtime(true) + $seconds;
        while (! $seen()) {
            if (microtime(true) > $until) {
                throw new \RuntimeException(
                    ($otherwise instanceof \Closure ? $otherwise() : $otherwise)." within {$seconds} seconds.",
                );
            }
            usleep(50_000);
        }
    }

    private static function assertPortsAreFree(int $first): void
    {
        for ($port = $first; $port < $first + 4; $port++) {
            if (@fsockopen('127.0.0.1', $port) !== false) {
                throw new \RuntimeException(
                    "Port {$port} is in use: the tests want {$first} to "
                        .($first + 3)
                        .' for an instance of their own. Stop what runs there.',
                );
            }
        }
    }

    private static function shell(string $script, string ...$words): void
    {
        (new Process(['bash', '-c', $script, 'bash', ...array_values($words)], self::root(), null, null, 60))->run();
    }
}
