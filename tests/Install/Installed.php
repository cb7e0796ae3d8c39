<?php

declare(strict_types=1);

namespace Tests\Install;

use GuzzleHttp\Client;
use GuzzleHttp\Cookie\CookieJar;
use GuzzleHttp\Exception\GuzzleException;
use Psr\Http\Message\ResponseInterface;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;

/** An installation on this machine under a name of its own, as a test has it made, asks it and takes it away. */
final readonly class Installed
{
    public const HOST = 'bench.shop.example';

    public const LEAD = ['maren@shop.example', 'kelp landing at noon'];

    /** What the tests' own process is told is not told to what it starts. */
    public const ENVIRONMENT = ['CACHE_STORE' => false];

    public function __construct(public string $name, public int $port, public int $databasePort)
    {
    }

    /**
     * @param  list<string>  $words
     * @param  string|null  $checkout  whose bin/install is run; this one's where null
     */
    public function install(array $words, ?string $checkout = null, int $seconds = 400): Process
    {
        $process = new Process(
            ['bin/install', '--name', $this->name, ...$words],
            $checkout ?? RunningSystem::root(),
            self::ENVIRONMENT + [
                'JADE_LEAD_NAME' => 'Maren Dow',
                'JADE_LEAD_ADDRESS' => self::LEAD[0],
                'JADE_LEAD_PASSWORD' => self::LEAD[1],
            ],
            '',
            $seconds,
        );
        $process->run();

        return $process;
    }

    /** @return list<string> words for a first installation */
    public function firstWords(): array
    {
        return [
            '--host', self::HOST, '--port', (string) $this->port, '--database-port', (string) $this->databasePort,
            '--workers', '2',
        ];
    }

    public function serve(): void
    {
        $process = new Process(['bash', '-c', "setsid /opt/{$this->name}/bin/serve --name {$this->name} \
            >/var/lib/{$this->name}/logs/serve.log 2>&1 </dev/null &"], null, self::ENVIRONMENT);
        $process->mustRun();
        RunningSystem::waitUntil($this->isUp(...), 60, 'the installation does not answer');
    }

    /** Stops it and kills whatever is left, without a word. */
    public function destroy(): void
    {
        foreach ([$this->name, "{$this->name}-db"] as $account) {
            (new Process(['pkill', '-KILL', '-f', "/opt/{$this->name}/bin/serve"]))->run();
            (new Process(['pkill', '-KILL', '-u', $account]))->run();
        }
    }

    public function remove(): void
    {
        $this->install(['--remove', '--with-data']);
        $this->destroy();
    }

    public function address(): string
    {
        return 'https://'.self::HOST.":{$this->port}";
    }

    public function isUp(): bool
    {
        try {
            return $this->ask('GET', '/api/v1/alive')->getStatusCode() === 204;
        } catch (GuzzleException) {
            return false;
        }
    }

    /** @param  array<string, mixed>  $body */
    public function ask(string $method, string $path, ?CookieJar $cookies = null, array $body = []): ResponseInterface
    {
        return (new Client)->request($method, $this->address().$path, [
            'http_errors' => false,
            'timeout' => 20,
            'cookies' => $cookies ?? false,
            'verify' => "/etc/{$this->name}/tls/authority.pem",
            'headers' => ['Accept' => 'application/json'],
            'curl' => [CURLOPT_RESOLVE => [self::HOST.":{$this->port}:127.0.0.1"]],
        ] + ($body === [] ? [] : ['json' => $body]));
    }

    /**
     * @param  array{string, string}  $who
     * @return array{ResponseInterface, CookieJar}
     */
    public function signIn(array $who = self::LEAD): array
    {
        $cookies = new CookieJar;

        return [$this->ask('POST', '/api/v1/session', $cookies, ['email' => $who[0], 'password' => $who[1]]), $cookies];
    }

    /** @return array<string, string> */
    public function settings(string $file = 'jade.env'): array
    {
        $settings = [];
        foreach (file("/etc/{$this->name}/{$file}", FILE_IGNORE_NEW_LINES) ?: [] as $line) {
            [$name, $value] = explode('=', $line, 2);
            $settings[$name] = $value;
        }

        return $settings;
    }

    public function artisan(string ...$words): string
    {
        return (new Process(
            ['bin/service', 'artisan', ...array_values($words)],
            "/opt/{$this->name}",
            ['JADE_VAR' => "/var/lib/{$this->name}", 'JADE_ACCOUNT' => $this->name],
            '',
            120,
        ))
            ->mustRun()
            ->getOutput();
    }

    public function database(): \PDO
    {
        $s = $this->settings();

        return new \PDO(
            "mysql:host=127.0.0.1;port={$s['DB_PORT']};dbname={$s['DB_DATABASE']}",
            $s['DB_USERNAME'],
            $s['DB_PASSWORD'],
            [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION],
        );
    }
}
