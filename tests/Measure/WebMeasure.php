<?php

declare(strict_types=1);

namespace Tests\Measure;

use GuzzleHttp\Client;
use GuzzleHttp\Cookie\CookieJar;
use GuzzleHttp\Pool;
use GuzzleHttp\Psr7\Utils;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;

#[
    AsCommand(
        'web',
        'Asks the Bench and an empty route, and sends a large file, once through nginx and PHP-FPM and once through '
            .'PHP\'s development server, in turns on one instance',
    ),
]
final class WebMeasure extends Command
{
    private const AT_ONCE = 8;

    private const TURNS = 3;

    private const DEVELOPMENT_PORT = 9434;

    /** As the product was served before: what is a file is sent, everything else is the application's. */
    private const ROUTER = <<<'PHP'
        <?php
        $root = '%s/public';
        $path = (string) parse_url((string) $_SERVER['REQUEST_URI'], PHP_URL_PATH);
        if ($path !== '/' && ! str_contains($path, '..') && is_file($root.$path)) {
            return false;
        }
        $_SERVER['SCRIPT_NAME'] = '/index.php';
        require $root.'/index.php';
        PHP;

    protected function configure(): void
    {
        $this->addOption('requests', null, InputOption::VALUE_REQUIRED, 'How many of each in a turn', '400');
        $this->addOption('megabytes', null, InputOption::VALUE_REQUIRED, 'How large the file is that is sent', '200');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $system = RunningSystem::start('measure-web', 9430, ['vendor', 'rig', 'web'], 1);
        $router = "{$system->folder}/router.php";
        file_put_contents($router, sprintf(self::ROUTER, RunningSystem::root()));
        $development = new Process(
            [
                'setsid', 'php', '-d', 'memory_limit=256M', '-d', 'post_max_size=0', '-d', 'opcache.enable_cli=1',
                '-S', '127.0.0.1:'.self::DEVELOPMENT_PORT, '-t', 'public', $router,
            ],
            RunningSystem::root(),
            ['JADE_VAR' => $system->folder, 'PHP_CLI_SERVER_WORKERS' => '6'] + $system->settings(),
            null,
            null,
        );
        $development->disableOutput();
        $development->start();
        RunningSystem::waitUntil(
            static fn (): bool => @fsockopen('127.0.0.1', self::DEVELOPMENT_PORT) !== false,
            20,
            'the development server did not start',
        );
        $servers = [
            'nginx and PHP-FPM' => $system->address(),
            'development server' => 'http://127.0.0.1:'.self::DEVELOPMENT_PORT,
        ];
        $took = array_fill_keys(array_keys($servers), ['alive' => [], 'bench' => []]);
        $seconds = [];
        $jars = array_map(self::signIn(...), $servers);
        for ($turn = 0; $turn < self::TURNS; $turn++) {
            foreach ($servers as $name => $address) {
                foreach (['alive', 'bench'] as $route) {
                    $started = microtime(true);
                    array_push(
                        $took[$name][$route],
                        ...self::ask($address, $route, $jars[$name], (int) $input->getOption('requests')),
                    );
                    $seconds[$name][$route] = ($seconds[$name][$route] ?? 0.0) + microtime(true) - $started;
                }
            }
        }
        foreach ($servers as $name => $address) {
            foreach (['alive', 'bench'] as $route) {
                sort($took[$name][$route]);
                $count = count($took[$name][$route]);
                $output->writeln(sprintf(
                    '%-18s  %-5s  %6.1f requests a second, p95 %6.1f ms',
                    $name,
                    $route,
                    $count / $seconds[$name][$route],
                    1000 * $took[$name][$route][(int) ($count * 0.95)],
                ));
            }
            [$status, $upload] = self::upload($address, $jars[$name], (int) $input->getOption('megabytes'));
            $output->writeln(sprintf(
                '%-18s  a file of %s MB: answered %d in %.1f s; most memory of a process %d MB',
                $name,
                $input->getOption('megabytes'),
                $status,
                $upload,
                self::peakMegabytes($name === 'development server' ? '-S 127.0.0.1:' : "{$system->folder}/run/web/"),
            ));
        }
        posix_kill(-(int) $development->getPid(), SIGKILL); // its workers would outlive it
        $system->stop();

        return self::SUCCESS;
    }

    private static function signIn(string $address): CookieJar
    {
        $cookies = new CookieJar;
        (new Client)->post("{$address}/api/v1/session", [
            'cookies' => $cookies,
            'json' => ['email' => 'bench@skerry.example', 'password' => 'tide-table-9'],
        ]);

        return $cookies;
    }

    /** @return list<float> seconds of each request */
    private static function ask(string $address, string $route, CookieJar $cookies, int $requests): array
    {
        $client = new Client(['cookies' => $cookies]);
        $took = [];
        $calls = static function () use ($client, $address, $route, $requests, &$took): \Generator {
            for ($i = 0; $i < $requests; $i++) {
                yield static function () use ($client, $address, $route, &$took) {
                    $started = microtime(true);

                    return $client->getAsync("{$address}/api/v1/{$route}")->then(
                        static function () use ($started, &$took): void {
                            $took[] = microtime(true) - $started;
                        },
                    );
                };
            }
        };
        (new Pool($client, $calls(), ['concurrency' => self::AT_ONCE]))->promise()->wait();

        return $took;
    }

    /** @return array{int, float} the answer's status, and seconds */
    private static function upload(string $address, CookieJar $cookies, int $megabytes): array
    {
        $file = tempnam(sys_get_temp_dir(), 'jade-step-upload');
        $out = fopen($file, 'wb');
        for ($i = 0; $i < $megabytes; $i++) {
            fwrite($out, random_bytes(1_000_000));
        }
        fclose($out);
        $started = microtime(true);
        $answer = (new Client)->post("{$address}/api/v1/shelf/imports?name=measured.zip", [
            'cookies' => $cookies,
            'http_errors' => false,
            'body' => Utils::streamFor(fopen($file, 'rb')),
            'headers' => [
                'Content-Type' => 'application/zip',
                'X-XSRF-TOKEN' => rawurldecode((string) $cookies->getCookieByName('XSRF-TOKEN')?->getValue()),
            ],
        ]);
        $seconds = microtime(true) - $started;
        unlink($file);

        return [$answer->getStatusCode(), $seconds];
    }

    /** @param  string  $of  what stands in the command line of the process, or of its parent */
    private static function peakMegabytes(string $of): int
    {
        $most = 0;
        foreach (glob('/proc/[0-9]*/status') ?: [] as $file) {
            $status = (string) @file_get_contents($file);
            $line = str_replace("\0", ' ', (string) @file_get_contents(dirname($file).'/cmdline'));
            $parent = preg_match('/^PPid:\s+(\d+)/m', $status, $m) === 1 ? $m[1] : '0';
            $line .= ' '.str_replace("\0", ' ', (string) @file_get_contents("/proc/{$parent}/cmdline"));
            if (
                str_contains($line, $of)
                && str_contains($line, 'php')
                && preg_match('/^VmHWM:\s+(\d+) kB/m', $status, $m) === 1
            ) {
                $most = max($most, intdiv((int) $m[1], 1024));
            }
        }

        return $most;
    }
}
