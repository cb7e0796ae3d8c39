<?php

declare(strict_types=1);

namespace Tests\Feature;

use GuzzleHttp\Client;
use GuzzleHttp\Cookie\CookieJar;
use JadeStep\Core\Exchange\BuildsCsv;
use JadeStep\Core\Exchange\CatalogueDocument;
use PHPUnit\Framework\TestCase;
use Psr\Http\Message\ResponseInterface;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;
use Tests\Support\Visitor;

/** What the web server lets in, gives out, and costs: against a running instance. */
final class FrontDoorTest extends TestCase
{
    /** What PHP may take for a request, and a little more for what it takes by itself. */
    private const MOST_MEGABYTES = 150;

    private static RunningSystem $system;

    public static function setUpBeforeClass(): void
    {
        self::$system = RunningSystem::start('front-door', 9210, ['vendor', 'rig', 'worker', 'web'], 50);
    }

    public static function tearDownAfterClass(): void
    {
        self::$system->stop();
    }

    public function test_a_body_without_measure_is_refused_before_anybody_reads_it(): void
    {
        foreach (['/api/v1/session', '/api/v1/jobs', '/', '/api/v1/shelf/imports'] as $path) {
            $answer = self::raw("POST {$path} HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 999999999999999\r\n\r\n{");
            self::assertMatchesRegularExpression('~^HTTP/1.1 413 ~', $answer, $path);
        }
        $large = self::ask('POST', '/api/v1/session', ['body' => str_repeat(' ', 3_000_000)]);
        self::assertSame(413, $large->getStatusCode());
        self::assertSame('too-large', json_decode((string) $large->getBody(), true)['code']);
        self::assertSame(204, self::ask('GET', '/api/v1/alive')->getStatusCode());
    }

    public function test_three_hundred_megabytes_of_a_stranger_are_answered_and_not_kept_in_memory(): void
    {
        $file = self::$system->folder.'/tmp/stranger';
        $out = fopen($file, 'wb');
        self::assertNotFalse($out);
        ftruncate($out, 300_000_000);
        fclose($out);
        $sent = ['application/zip' => '401', 'application/json' => '415', 'multipart/form-data; boundary=x' => '401'];
        foreach ($sent as $type => $status) {
            foreach ([[$status, 'X-Said: how long'], ['411', 'Transfer-Encoding: chunked']] as [$wanted, $how]) {
                $curl = new Process([
                    'curl', '--silent', '--output', '/dev/null', '--write-out', '%{http_code}', '--header', 'Expect:',
                    '--header', "Content-Type: {$type}", '--header', $how, '--data-binary', "@{$file}",
                    self::$system->address().'/api/v1/shelf/imports',
                ]);
                $curl->run();
                self::assertSame($type === 'application/json' ? '415' : $wanted, $curl->getOutput(), "{$type}, {$how}");
            }
        }
        unlink($file);
        self::assertSame(204, self::ask('GET', '/api/v1/alive')->getStatusCode());
        self::assertLessThan(self::MOST_MEGABYTES, self::peakMegabytes());
    }

    public function test_a_backup_larger_than_the_memory_comes_in_as_it_is(): void
    {
        $cookies = new CookieJar;
        self::ask('POST', '/api/v1/session', [
            'json' => ['email' => 'bench@skerry.example', 'password' => 'tide-table-9'],
            'cookies' => $cookies,
        ]);
        $file = self::$system->folder.'/tmp/large.zip';
        $out = fopen($file, 'wb');
        self::assertNotFalse($out);
        ftruncate($out, 400_000_000);
        fclose($out);
        $answer = self::ask('POST', '/api/v1/shelf/imports?name=large.zip', [
            'cookies' => $cookies,
            'body' => \GuzzleHttp\Psr7\Utils::streamFor(fopen($file, 'rb')),
            'headers' => [
                'Content-Type' => 'application/zip',
                'X-XSRF-TOKEN' => rawurldecode((string) $cookies->getCookieByName('XSRF-TOKEN')?->getValue()),
            ],
        ]);
        unlink($file);
        self::assertSame(202, $answer->getStatusCode(), (string) $answer->getBody());
        self::assertLessThan(self::MOST_MEGABYTES, self::peakMegabytes());
    }

    public function test_what_is_built_is_kept_for_ever_and_what_is_not_built_is_not_served(): void
    {
        $page = (string) self::ask('GET', '/')->getBody();
        self::assertSame(1, preg_match('~src="(/build/assets/[^"]+\.js)"~', $page, $m));
        $script = self::ask('GET', $m[1], ['headers' => ['Accept-Encoding' => 'gzip'], 'decode_content' => false]);
        self::assertSame('public, max-age=31536000, immutable', $script->getHeaderLine('Cache-Control'));
        self::assertSame('gzip', $script->getHeaderLine('Content-Encoding'));
        self::assertSame('nosniff', $script->getHeaderLine('X-Content-Type-Options'));
        $hidden = [
            '/index.php', '/.env', '/jade.env', '/build/', '/build/../../composer.json', '/build/..%2f..%2fartisan',
            '/build/assets/none.js', '/../jade.env', '/storage/logs', '/vendor/autoload.php', '/.git/config',
        ];
        foreach ($hidden as $path) {
            $answer = self::raw("GET {$path} HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n");
            self::assertMatchesRegularExpression('~^HTTP/1.1 (40[034]) ~', $answer, $path);
            self::assertStringNotContainsString('<?php', $answer);
        }
    }

    public function test_every_answer_says_what_browsers_are_to_keep_from(): void
    {
        foreach (['/', '/api/v1/alive', '/api/v1/bench', '/api/v1/none', '/none'] as $path) {
            $answer = self::ask('GET', $path);
            $policy = $answer->getHeaderLine('Content-Security-Policy');
            self::assertStringContainsString("default-src 'none'", $policy, $path);
            self::assertStringNotContainsString('unsafe', $policy);
            self::assertSame('nosniff', $answer->getHeaderLine('X-Content-Type-Options'), $path);
            self::assertSame('DENY', $answer->getHeaderLine('X-Frame-Options'), $path);
            self::assertSame('same-origin', $answer->getHeaderLine('Referrer-Policy'), $path);
            self::assertSame('', $answer->getHeaderLine('X-Powered-By'), $path);
            self::assertSame('nginx', $answer->getHeaderLine('Server'), 'and no version');
            self::assertSame([], $answer->getHeader('Set-Cookie'), $path);
        }
    }

    public function test_a_picture_is_shown_wherever_its_link_is_opened_and_nothing_is_done_for_another_page(): void
    {
        $cookies = new CookieJar;
        $in = self::ask('POST', '/api/v1/session', [
            'json' => ['email' => 'bench@skerry.example', 'password' => 'tide-table-9'],
            'cookies' => $cookies,
        ]);
        self::assertSame(200, $in->getStatusCode());
        // no Referer, no Origin: as a new tab asks
        self::assertSame(200, self::ask('GET', '/api/v1/shelf', ['cookies' => $cookies])->getStatusCode());
        $token = rawurldecode((string) $cookies->getCookieByName('XSRF-TOKEN')?->getValue());
        $act = static fn (array $headers): int => self::ask('POST', '/api/v1/almanac/refresh', [
            'cookies' => $cookies,
            'headers' => $headers,
        ])->getStatusCode();
        self::assertSame(419, $act([]));
        self::assertSame(419, $act(['X-XSRF-TOKEN' => $token, 'Origin' => 'https://evil.example']));
        self::assertSame(419, $act(['X-XSRF-TOKEN' => $token, 'Sec-Fetch-Site' => 'cross-site']));
        self::assertSame(200, $act(['X-XSRF-TOKEN' => $token, 'Origin' => self::$system->address()]));
    }

    public function test_documents_as_large_as_their_formats_allow_come_in(): void
    {
        $cookies = new CookieJar;
        self::ask('POST', '/api/v1/session', [
            'json' => ['email' => 'bench@skerry.example', 'password' => 'tide-table-9'],
            'cookies' => $cookies,
        ]);
        $send = static fn (string $path, int $bytes): int => self::ask('POST', "/api/v1{$path}", [
            'cookies' => $cookies,
            'body' => '{'.str_repeat(' ', $bytes).'}',
            'headers' => [
                'Content-Type' => 'application/json',
                'X-XSRF-TOKEN' => rawurldecode((string) $cookies->getCookieByName('XSRF-TOKEN')?->getValue()),
            ],
        ])->getStatusCode();
        self::assertSame(422, $send('/plan', 7_900_000));
        self::assertSame(422, $send('/intake/batch/preview', 5_500_000));
        self::assertSame(422, $send('/almanac/import/preview', 40_000_000));
        self::assertSame(413, $send('/plan', 20_000_000));
        self::assertSame(413, $send('/identify', 3_000_000));
    }

    public function test_a_table_of_twenty_thousand_builds_is_previewed(): void
    {
        $visitor = Visitor::signIn(self::$system->address());
        $held = (string) $visitor->send('GET', '/almanac/vendors/osterly/catalogue')->getBody();
        $catalogue = CatalogueDocument::parse($held);
        [$head, $first] = explode("\r\n", str_replace("\r\r", "\r", BuildsCsv::write($catalogue)), 3) + ['', ''];
        [$head, $first] = [trim($head), trim(explode("\n", BuildsCsv::write($catalogue))[1])];
        $columns = str_getcsv($head, ',', '"', '');
        $row = array_combine($columns, str_getcsv($first, ',', '"', ''));
        $out = fopen('php://temp', 'w+b');
        self::assertNotFalse($out);
        fputcsv($out, $columns, ',', '"', '');
        for ($i = 0; $i < 20_000; $i++) {
            fputcsv($out, ['build' => "Z{$i}", 'version' => '4.'.intdiv($i, 500).'.'.$i % 500] + $row, ',', '"', '');
        }
        rewind($out);
        $table = ['text' => (string) stream_get_contents($out), 'vendor' => 'osterly', 'fileName' => 'builds.csv'];
        $answer = $visitor->send('POST', '/almanac/import/preview', $table, seconds: 180);
        self::assertSame(200, $answer->getStatusCode(), mb_substr((string) $answer->getBody(), 0, 500));
        $told = json_decode((string) $answer->getBody(), true);
        self::assertSame([[], true], [$told['faults'], $told['builds'] >= 20_000]);

        $table['text'] .= str_repeat("x\n", 6_000);
        $more = $visitor->send('POST', '/almanac/import/preview', $table, seconds: 180);
        self::assertSame(422, $more->getStatusCode());
        self::assertStringContainsString('at most 25000 lines', (string) $more->getBody());
    }

    public function test_the_examples_of_the_api_do_what_they_say(): void
    {
        $cookies = new CookieJar;
        $post = static fn (string $path, array $body): ResponseInterface => self::ask('POST', "/api/v1{$path}", [
            'json' => $body,
            'cookies' => $cookies,
            'headers' => [
                'X-XSRF-TOKEN' => rawurldecode((string) $cookies->getCookieByName('XSRF-TOKEN')?->getValue()),
            ],
        ]);
        $post('/session', ['email' => 'bench@skerry.example', 'password' => 'tide-table-9']);
        $post('/session/confirmation', ['password' => 'tide-table-9']);
        $made = $post('/tokens', ['name' => 'examples', 'role' => 'technician', 'days' => 1]);
        self::assertSame(201, $made->getStatusCode(), (string) $made->getBody());
        $examples = (string) file_get_contents(RunningSystem::root().'/docs/api.md');
        self::assertGreaterThanOrEqual(6, preg_match_all('/^```bash\n(.*?)^```$/ms', $examples, $blocks));
        foreach ($blocks[1] as $block) {
            $run = new Process(['bash', '-euo', 'pipefail', '-c', $block], null, [
                'JADE_STEP' => self::$system->address(),
                'TOKEN' => json_decode((string) $made->getBody(), true)['token'],
            ]);
            $run->run();
            self::assertSame(0, $run->getExitCode(), "{$block}\n{$run->getOutput()}{$run->getErrorOutput()}");
        }
        self::assertStringContainsString('rapi-doc', (string) self::ask('GET', '/reference')->getBody());
        $document = json_decode((string) self::ask('GET', '/reference/openapi.json')->getBody(), true);
        self::assertArrayHasKey('/tokens', $document['paths']);
        self::assertSame(200, self::ask('GET', '/reference/formats/plan.schema.json')->getStatusCode());
    }

    public function test_files_of_an_instance_are_their_accounts_alone(): void
    {
        $folder = self::$system->folder;
        $open = new Process([
            'find', $folder, '-mindepth', '1', '!', '-type', 'l',
            '-perm', '/077', '-print',
        ]);
        $open->mustRun();
        $all = array_filter(explode("\n", $open->getOutput()));
        // what another account could reach it reaches only through a folder that is open to it
        $reached = array_filter($all, static fn (string $file): bool => (fileperms(dirname($file)) & 0o001) !== 0);
        self::assertSame([], array_values($reached));
    }

    public function test_logs_are_turned_and_the_demo_touches_nobody_who_is_there(): void
    {
        $log = self::$system->folder.'/logs/worker-1.log';
        file_put_contents($log, str_repeat("a line\n", 800_000));
        $turn = new Process(
            ['bash', '-c', '. bin/lib/prepare.sh && . bin/lib/supervise.sh && turn_logs && turn_logs'],
            RunningSystem::root(),
            ['JADE_VAR' => self::$system->folder],
        );
        $turn->mustRun();
        self::assertSame(0, filesize($log));
        self::assertFileExists("{$log}.1.gz");

        $database = self::$system->database();
        $database->exec("UPDATE users SET password = 'changed' WHERE email = 'viewer@skerry.example'");
        $database->exec("DELETE FROM users WHERE email = 'lead@skerry.example'");
        self::$system->artisan('jade:demo');
        $left = $database->query('SELECT email, password FROM users ORDER BY email');
        self::assertNotFalse($left);
        $people = $left->fetchAll(\PDO::FETCH_KEY_PAIR);
        self::assertSame(['bench@skerry.example', 'viewer@skerry.example'], array_keys($people));
        self::assertSame('changed', $people['viewer@skerry.example']);
    }

    public function test_a_full_disk_of_the_inbox_leaves_nothing_behind(): void
    {
        // /dev/full takes nothing, as a disk that is full (full(4))
        $this->expectException(\App\Ports\Exception\NotReceived::class);
        $this->expectExceptionMessage('The disk took a part of the file only.');
        $link = self::$system->folder.'/tmp/full';
        symlink('/dev/full', $link);
        $body = fopen('php://temp', 'w+b');
        self::assertNotFalse($body);
        fwrite($body, str_repeat('x', 100_000));
        rewind($body);
        try {
            \App\Ports\Disk\IncomingFile::take($body, $link);
        } finally {
            self::assertFalse(is_link($link));
        }
    }

    /** @param  array<string, mixed>  $options */
    private static function ask(string $method, string $path, array $options = []): ResponseInterface
    {
        $options['headers'] = ($options['headers'] ?? []) + ['Accept' => 'application/json'];

        return (new Client)->request($method, self::$system->address().$path, $options + [
            'http_errors' => false,
            'timeout' => 60,
        ]);
    }

    /** Bytes as they are, which no client would send. */
    private static function raw(string $request): string
    {
        $line = fsockopen('127.0.0.1', self::$system->port, timeout: 10);
        self::assertNotFalse($line);
        stream_set_timeout($line, 10);
        fwrite($line, $request);
        $answer = (string) fread($line, 65_536);
        fclose($line);

        return $answer;
    }

    /** The most that any of the instance's PHP processes for pages ever had in memory. */
    private static function peakMegabytes(): int
    {
        $most = 0;
        foreach (glob('/proc/[0-9]*/status') ?: [] as $file) {
            $line = (string) @file_get_contents(dirname($file).'/cmdline');
            $status = (string) @file_get_contents($file);
            $parent = preg_match('/^PPid:\s+(\d+)/m', $status, $m) === 1 ? $m[1] : '0';
            $master = (string) @file_get_contents("/proc/{$parent}/cmdline");
            if (
                str_starts_with($line, 'php-fpm: pool web')
                && str_contains($master, self::$system->folder.'/run/web/')
                && preg_match('/^VmHWM:\s+(\d+) kB/m', $status, $m) === 1
            ) {
                $most = max($most, intdiv((int) $m[1], 1024));
            }
        }
        self::assertGreaterThan(0, $most, 'there is a process to be measured');

        return $most;
    }
}
