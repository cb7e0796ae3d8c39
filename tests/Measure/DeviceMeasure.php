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
use Tests\Support\Visitor;

#[
    AsCommand(
        'device',
        'Backs a large device up over the link, as a job does, beside a plain client that fetches, hashes and writes '
            .'the same from the same device',
    ),
]
final class DeviceMeasure extends Command
{
    private const PORT = 9460;

    private const SERIAL = 'SKL-9001';

    private const SECONDS = 3600;

    protected function configure(): void
    {
        $this->addOption('items', null, InputOption::VALUE_REQUIRED, 'How many items', '30000');
        $this->addOption('kilobytes', null, InputOption::VALUE_REQUIRED, 'How large each is', '64');
        $this->addOption('no-batch', null, InputOption::VALUE_NONE, 'The link gives items one by one only');
        $this->addOption('turns', null, InputOption::VALUE_REQUIRED, 'How often, each beside the other', '1');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $items = max(1, (int) $input->getOption('items'));
        $bytes = 1024 * max(1, (int) $input->getOption('kilobytes'));
        $system = RunningSystem::start('measure-device', self::PORT, ['web', 'worker'], 1);
        $device = $this->device($items, $bytes, $input->getOption('no-batch') === true);
        $visitor = Visitor::signIn($system->address());
        $output->writeln(sprintf('%d items of %d kB, %.1f GB', $items, $bytes / 1024, $items * $bytes / 1e9));
        for ($turn = 0; $turn < (int) $input->getOption('turns'); $turn++) {
            $plain = $this->plainClient("{$system->folder}/plain");
            $before = self::sent();
            $took = $this->job($system, $visitor);
            $sent = self::sent();
            $output->writeln(sprintf(
                'plain client %.1f s, %.0f items/s, %.0f MB/s; backed up in %.1f s, %.0f items/s, %.0f MB/s: '
                    .'%.2f of the plain client',
                $plain,
                $items / $plain,
                $items * $bytes / 1e6 / $plain,
                $took['back-up'],
                $items / $took['back-up'],
                $items * $bytes / 1e6 / $took['back-up'],
                $plain / $took['back-up'],
            ));
            $output->writeln(sprintf(
                '  %d requests, %.2f of the bytes; verified in %.1f s; most memory of the worker %d MB',
                $sent['requests'] - $before['requests'],
                ($sent['bytes'] - $before['bytes']) / ($items * $bytes),
                $took['verify-backup'],
                self::peakOfWorker($system),
            ));
        }
        $device->stop(1);
        $system->stop();

        return self::SUCCESS;
    }

    private function device(int $items, int $bytes, bool $single): Process
    {
        $device = new Process(
            [
                'python3', 'tests/Measure/large_device.py', (string) (self::PORT + 2), (string) $items, (string) $bytes,
                ...($single ? ['--no-batch'] : []),
            ],
            RunningSystem::root(),
            null,
            null,
            null,
        );
        $device->start();
        RunningSystem::waitUntil(
            static fn (): bool => @fsockopen('127.0.0.1', self::PORT + 2) !== false,
            600,
            'the device did not start',
        );

        return $device;
    }

    /** @return float seconds */
    private function plainClient(string $folder): float
    {
        exec('rm -rf '.escapeshellarg($folder));
        $client = new Process(
            ['python3', 'tests/Measure/plain_client.py', self::link(), self::SERIAL, $folder],
            RunningSystem::root(),
            null,
            null,
            self::SECONDS,
        );
        $told = json_decode($client->mustRun()->getOutput(), true, 4, JSON_THROW_ON_ERROR);
        exec('rm -rf '.escapeshellarg($folder));

        return $told['seconds'];
    }

    /** @return array<string, float> seconds by step */
    private function job(RunningSystem $system, Visitor $visitor): array
    {
        $job = $visitor->ask('POST', '/jobs', ['serial' => self::SERIAL, 'intent' => 'back-up-only'])['id'];
        RunningSystem::waitUntil(
            static fn (): bool => $visitor->ask('GET', "/jobs/{$job}")['state'] !== 'open',
            self::SECONDS,
            static fn (): string => 'The job did not end: '.json_encode($visitor->ask('GET', "/jobs/{$job}")['now']),
        );
        $rows = $system->database()->query("SELECT code, TIMESTAMPDIFF(MICROSECOND, started_at, ended_at) / 1e6
            FROM job_steps WHERE bench_job_id = {$job} AND ended_at IS NOT NULL");

        return array_map(floatval(...), $rows->fetchAll(\PDO::FETCH_KEY_PAIR));
    }

    /** @return array{requests: int, items: int, bytes: int} */
    private static function sent(): array
    {
        return json_decode((string) file_get_contents(self::link().'/sent'), true, 4, JSON_THROW_ON_ERROR);
    }

    private static function link(): string
    {
        return 'http://127.0.0.1:'.(self::PORT + 2);
    }

    private static function peakOfWorker(RunningSystem $system): int
    {
        $most = 0;
        foreach (glob('/proc/[0-9]*/environ') ?: [] as $file) {
            $mine = str_contains((string) @file_get_contents($file), "JADE_VAR={$system->folder}\0");
            $words = str_replace("\0", ' ', (string) @file_get_contents(dirname($file).'/cmdline'));
            $status = (string) @file_get_contents(dirname($file).'/status');
            if ($mine && str_contains($words, 'queue:work') && preg_match('/^VmHWM:\s+(\d+)/m', $status, $m) === 1) {
                $most = max($most, intdiv((int) $m[1], 1024));
            }
        }

        return $most;
    }
}
