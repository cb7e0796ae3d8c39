<?php

declare(strict_types=1);

namespace Tests\Measure;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Tests\Fault\Doors;

#[AsCommand('fuzz', 'Throws altered inputs at every door of the core, by seed, and names what ends in an error')]
final class FuzzMeasure extends Command
{
    protected function configure(): void
    {
        $this->addOption('inputs', null, InputOption::VALUE_REQUIRED, 'How many in all', '20000')
            ->addOption('from', null, InputOption::VALUE_REQUIRED, 'The first seed', '100000');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $folder = sys_get_temp_dir().'/jade-fuzz-'.bin2hex(random_bytes(6));
        mkdir($folder);
        try {
            $this->throwAll($folder, (int) $input->getOption('inputs'), (int) $input->getOption('from'), $output);
        } finally {
            exec('rm -rf '.escapeshellarg($folder));
        }

        return 0;
    }

    private function throwAll(string $folder, int $count, int $from, OutputInterface $output): void
    {
        $doors = new Doors($folder);
        $names = Doors::names();
        $started = microtime(true);
        $broken = 0;
        for ($i = 0; $i < $count; $i++) {
            $fault = $doors->throwAt($names[$i % count($names)], $from + $i);
            if ($fault !== null) {
                $broken++;
                $output->writeln($fault);
            }
        }
        $output->writeln(
            sprintf(
                '%d inputs at %d doors in %.0f s: %d ended in an error; peak memory %.0f MB',
                $count,
                count($names),
                microtime(true) - $started,
                $broken,
                memory_get_peak_usage() / 1e6,
            ),
        );
    }
}
