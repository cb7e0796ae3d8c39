<?php

declare(strict_types=1);

namespace Tests\Measure;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;

#[
    AsCommand(
        'bare',
        'Runs bin/start and bin/test on a Debian that has nothing yet, as root from its home folder and as an ordinary '
            .'user with sudo',
    ),
]
final class BareMeasure extends Command
{
    private const USER = 'technician';

    private const ADDRESS = 'http://127.0.0.1:8930';

    private const LAST_LINES = 14;

    protected function configure(): void
    {
        $this->addOption('as', null, InputOption::VALUE_REQUIRED, 'root, user, or both one after the other', 'both')
            ->addOption('only', null, InputOption::VALUE_REQUIRED, 'start, test, or both one after the other', 'both');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        if (posix_geteuid() !== 0) {
            $output->writeln('Only root may make a system in a folder: run it as root.');

            return 1;
        }
        if (@fsockopen('127.0.0.1', 8930) !== false) {
            $output->writeln('Port 8930 is in use, and bin/start wants it. Stop what runs there.');

            return 1;
        }
        $bring = ['bash', '-c', '. bin/lib/prepare.sh && need_debian $(packages_of measure)'];
        (new Process($bring, RunningSystem::root()))->setTimeout(300)->mustRun();
        $began = microtime(true);
        $folder = sys_get_temp_dir().'/jade-step-bare-'.bin2hex(random_bytes(4));
        $bare = BareSystem::make("{$folder}-base");
        $output->writeln(sprintf('A bare system was made in %.0f s.', microtime(true) - $began));
        try {
            foreach (['root' => 'root', 'user' => self::USER] as $which => $user) {
                in_array($input->getOption('as'), ['both', $which], true)
                    && $this->tryAs($user, $bare->copy("{$folder}-{$which}"), $input->getOption('only'), $output);
            }
        } finally {
            $bare->remove();
        }

        return 0;
    }

    private function tryAs(string $user, BareSystem $system, string $only, OutputInterface $output): void
    {
        try {
            $system->open();
            $home = $user === 'root' ? '/root' : '/home/'.self::USER;
            $user === 'root' || $system->addUser($user);
            $clone = ['git', 'clone', '-q', RunningSystem::root(), "{$system->folder}{$home}/jade-step"];
            (new Process($clone))->setTimeout(120)->mustRun();
            $owner = fileowner($system->folder.$home);
            (new Process(['chown', '-R', "{$owner}:{$owner}", "{$system->folder}{$home}/jade-step"]))->mustRun();
            $output->writeln("As {$user}, from {$home}/jade-step:");
            $only === 'test' || $this->start($user, $system, "{$home}/jade-step", $output);
            $only === 'start' || $this->test($user, $system, "{$home}/jade-step", $output);
        } finally {
            $system->remove();
        }
    }

    private function start(string $user, BareSystem $system, string $in, OutputInterface $output): void
    {
        $began = microtime(true);
        [$process, $log] = $system->begin($user, $in, 'bin/start');
        while ($process->isRunning() && ! str_contains((string) file_get_contents($log), 'Ctrl-C stops everything')) {
            usleep(500_000);
        }
        $runs = $process->isRunning();
        $page = $runs ? (string) @file_get_contents(self::ADDRESS.'/') : '';
        $output->writeln(sprintf(
            '  bin/start: %s after %.0f s; its first page has %d bytes',
            $runs ? 'running' : 'FAILED',
            microtime(true) - $began,
            strlen($page),
        ));
        $runs || $this->tell($log, $output);
        $runs && posix_kill(-(int) $process->getPid(), SIGINT);
        $process->wait();
    }

    private function test(string $user, BareSystem $system, string $in, OutputInterface $output): void
    {
        $began = microtime(true);
        [$process, $log] = $system->begin($user, $in, 'bin/test');
        $process->wait();
        $output->writeln(sprintf(
            '  bin/test: exit %d after %.0f s',
            $process->getExitCode(),
            microtime(true) - $began,
        ));
        $this->tell($log, $output);
    }

    private function tell(string $log, OutputInterface $output): void
    {
        $lines = file($log, FILE_IGNORE_NEW_LINES) ?: [];
        foreach (array_slice($lines, -self::LAST_LINES) as $line) {
            $output->writeln("    {$line}");
        }
        $output->writeln("    All that it said is in {$log}.");
    }
}
