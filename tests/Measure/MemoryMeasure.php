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
        'memory',
        'Does what is done with bags, each in a process of its own, with few items and with many, and tells the most '
            .'memory that each had',
    ),
]
final class MemoryMeasure extends Command
{
    private const WHAT = [
        'back up', 'back up again', 'verify', 'lower', 'prove', 'return', 'export', 'back up encrypted',
        'open encrypted',
    ];

    private const FEW = 500;

    protected function configure(): void
    {
        $this->addOption('items', null, InputOption::VALUE_REQUIRED, 'How many are many', '500000');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $many = max(1, (int) $input->getOption('items'));
        $folder = sys_get_temp_dir().'/jade-step-memory-'.getmypid();
        $found = [];
        try {
            foreach ([self::FEW, $many] as $items) {
                exec("rm -rf {$folder}");
                mkdir($folder);
                foreach (self::WHAT as $what) {
                    $found[$what][$items] = self::of($what, $items, $folder);
                }
                $found['import'][$items] = self::import($folder);
            }
        } finally {
            exec('chmod -R u+w '.escapeshellarg($folder).'; rm -rf '.escapeshellarg($folder));
        }
        foreach ($found as $what => [self::FEW => [, $few], $many => [$seconds, $most]]) {
            $output->writeln(sprintf(
                '%-18s %4.0f MB with %d items, %4.0f MB with %d: %.2f times; %.1f s',
                $what,
                $few / 1024,
                self::FEW,
                $most / 1024,
                $many,
                $most / $few,
                $seconds,
            ));
        }

        return self::SUCCESS;
    }

    /** @return array{float, int} seconds, and kB at most */
    private static function of(string $what, int $items, string $folder): array
    {
        $command = ['php', 'tests/Measure/memory_of.php', $what, (string) $items, $folder];
        $process = new Process($command, RunningSystem::root(), null, null, null);
        [$seconds, $most] = explode(' ', trim($process->mustRun()->getOutput())) + ['0', '0'];

        return [(float) $seconds, (int) $most];
    }

    /** @return array{float, int} of the program that unpacks a ZIP, beside the worker that waits for it */
    private static function import(string $folder): array
    {
        (new Process(['bsdtar', '--format', 'zip', '-cf', 'bag.zip', 'plain'], $folder, null, null, null))->mustRun();
        $program = 'require $argv[1]."/vendor/autoload.php";
            $limits = JadeStep\Core\Bag\ImportLimits::usual((int) disk_free_space("."));
            JadeStep\Core\Bag\ZipBag::unpack("bag.zip", "in", $limits);
            preg_match("/VmHWM:\s+(\d+)/", file_get_contents("/proc/self/status"), $m);
            echo $m[1];';
        $started = microtime(true);
        $process = new Process(['php', '-r', $program, '--', RunningSystem::root()], $folder, null, null, null);
        $most = (int) $process->mustRun()->getOutput();

        return [microtime(true) - $started, $most];
    }
}
