<?php

declare(strict_types=1);

namespace Tests\Steps;

use App\Ports\Exception\NotSent;
use App\Ports\Post;
use App\Ports\Webhooks;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;

/** Mail by SMTP against a server that keeps it (Debian's aiosmtpd), and webhooks against one that keeps the calls. */
final class SentOutTest extends ServerlessTestCase
{
    private const PORT = 8996;

    private ?Process $server = null;

    private string $kept;

    protected function setUp(): void
    {
        parent::setUp();
        $this->kept = sys_get_temp_dir().'/jade-sent-'.bin2hex(random_bytes(6));
        config()->set(['jade.mail_dsn' => 'smtp://127.0.0.1:'.self::port(), 'jade.mail_from' => 'jade@shop.example']);
        config()->set('jade.webhook_addresses', '127.0.0.1:'.self::port());
    }

    protected function tearDown(): void
    {
        $this->server?->stop(1);
        exec('rm -rf '.escapeshellarg($this->kept));
        parent::tearDown();
    }

    public function test_a_mail_arrives_as_it_was_written_and_says_that_a_machine_wrote_it(): void
    {
        $this->serve(
            '-m',
            'aiosmtpd',
            '-n',
            '-l',
            '127.0.0.1:'.self::port(),
            '-c',
            'aiosmtpd.handlers.Mailbox',
            $this->kept,
        );
        $this->mail()->send(
            'teo@shop.example',
            'Job 12, Fenn 7: Größe?',
            "A line.\n\n.alone\nÄnderung\n",
            'jade-step.1.2',
        );

        $files = glob("{$this->kept}/new/*") ?: [];
        self::assertCount(1, $files);
        $told = json_decode((new Process(['python3', '-c', <<<'PY'
            import email, email.policy, json, sys
            m = email.message_from_binary_file(open(sys.argv[1], 'rb'), policy=email.policy.default)
            names = ('to', 'from', 'subject', 'message-id', 'auto-submitted')
            print(json.dumps({**{k: str(m[k]) for k in names}, 'text': m.get_content().rstrip() + '\n'}))
            PY, $files[0]]))->mustRun()->getOutput(), true);
        self::assertSame([
            'to' => 'teo@shop.example',
            'from' => 'jade@shop.example',
            'subject' => 'Job 12, Fenn 7: Größe?',
            'message-id' => '<jade-step.1.2@127.0.0.1>',
            'auto-submitted' => 'auto-generated',
            'text' => "A line.\n\n.alone\nÄnderung\n",
        ], $told);
    }

    public function test_a_server_that_is_not_there_or_takes_nothing_is_told_and_nothing_counts_as_sent(): void
    {
        try {
            $this->mail()->send('teo@shop.example', 'Subject', 'Text', 'jade-step.1.2');
            self::fail('It counted as sent.');
        } catch (NotSent $e) {
            self::assertFalse($e->maybe);
            self::assertStringContainsString('did not take it', $e->getMessage());
        }
        config()->set('jade.mail_dsn', '');
        $this->expectExceptionMessage('No mail server is set up');
        $this->mail()->send('teo@shop.example', 'Subject', 'Text', 'jade-step.1.2');
    }

    public function test_a_webhook_is_signed_as_openssl_computes_it(): void
    {
        $this->serve(__DIR__.'/../Support/webhook_catcher.py', (string) self::port(), $this->kept);
        $this->webhooks()->send(
            $this->address(),
            ['type' => 'bag-damaged', 'data' => ['page' => 'ä']],
            'jade-step-1-2',
            's3cret',
        );

        $call = json_decode((string) file_get_contents($this->kept), true);
        self::assertSame(['type' => 'bag-damaged', 'data' => ['page' => 'ä']], json_decode($call['body'], true));
        self::assertSame('jade-step-1-2', $call['headers']['webhook-id']);
        $signed = "jade-step-1-2.{$call['headers']['webhook-timestamp']}.{$call['body']}";
        $openssl = new Process(
            ['bash', '-c', 'openssl dgst -sha256 -hmac s3cret -binary | base64 -w0'],
            null,
            null,
            $signed,
        );
        self::assertSame('v1,'.$openssl->mustRun()->getOutput(), $call['headers']['webhook-signature']);
        self::assertEqualsWithDelta(time(), (int) $call['headers']['webhook-timestamp'], 60);
    }

    public function test_a_webhook_that_answers_otherwise_or_that_nobody_has_allowed_is_told(): void
    {
        $this->serve(__DIR__.'/../Support/webhook_catcher.py', (string) self::port(), $this->kept, '302');
        $why = function (): string {
            try {
                $this->webhooks()->send($this->address(), ['type' => 'trial'], 'id', 's');
            } catch (NotSent $e) {
                return $e->getMessage();
            }

            return 'sent';
        };
        self::assertStringContainsString('It answered 302', $why());
        config()->set('jade.webhook_addresses', '');
        self::assertStringContainsString('WEBHOOK_ADDRESSES', $why());
        self::assertSame(1, substr_count((string) file_get_contents($this->kept), "\n"));
    }

    private function serve(string ...$words): void
    {
        $this->server = new Process(['python3', ...array_values($words)]);
        $this->server->setTimeout(null);
        $this->server->start();
        RunningSystem::waitUntil(
            static fn (): bool => @fsockopen('127.0.0.1', self::port()) !== false,
            20,
            fn (): string => 'the server did not start: '.$this->server->getErrorOutput(),
        );
    }

    private function address(): string
    {
        return 'http://127.0.0.1:'.self::port().'/in';
    }

    private static function port(): int
    {
        return RunningSystem::port(self::PORT);
    }

    private function mail(): Post
    {
        return $this->app->make(Post::class);
    }

    private function webhooks(): Webhooks
    {
        return $this->app->make(Webhooks::class);
    }
}
