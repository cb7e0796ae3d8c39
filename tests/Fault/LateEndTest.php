<?php

declare(strict_types=1);

namespace Tests\Fault;

use GuzzleHttp\Client;
use PHPUnit\Framework\TestCase;
use Tests\Support\RunningSystem;

/** A service was killed, and a process that it had started ends only after the service runs again. */
final class LateEndTest extends TestCase
{
    private RunningSystem $system;

    protected function setUp(): void
    {
        $this->system = RunningSystem::start('late', 8980, ['rig'], 60);
    }

    protected function tearDown(): void
    {
        $this->system->stop();
    }

    public function test_what_ends_late_takes_nothing_from_what_runs_now(): void
    {
        $left = $this->phpOf('rig');
        posix_kill($left, SIGSTOP);
        $this->system->kill('rig');
        $this->system->launch('rig', $this->system->port + 2);
        self::assertTrue(self::runs($left), 'the old process is there until it is let go');
        $before = $this->answer();

        posix_kill($left, SIGCONT);
        RunningSystem::waitUntil(static fn (): bool => ! self::runs($left), 10, 'the old process did not end');

        self::assertSame(200, $before);
        self::assertSame(200, $this->answer());
    }

    /** One that has ended has no words left, even where nobody has asked for its end yet. */
    private static function runs(int $process): bool
    {
        return (string) @file_get_contents("/proc/{$process}/cmdline") !== '';
    }

    /** @return int the process of PHP-FPM that a running service has started */
    private function phpOf(string $service): int
    {
        $group = $this->system->groupOf($service);
        foreach (explode(' ', trim((string) file_get_contents("/proc/{$group}/task/{$group}/children"))) as $child) {
            if (str_starts_with((string) file_get_contents("/proc/{$child}/comm"), 'php-fpm')) {
                return (int) $child;
            }
        }
        throw new \LogicException("{$service} runs without PHP-FPM.");
    }

    private function answer(): int
    {
        return (new Client(['http_errors' => false]))
            ->get($this->system->settings()['DEVICE_LINK'].'/ports')
            ->getStatusCode();
    }
}
