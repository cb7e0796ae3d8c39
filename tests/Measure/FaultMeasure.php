<?php

declare(strict_types=1);

namespace Tests\Measure;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Tests\Fault\SafeguardRuns;

#[AsCommand('fault', 'Backs up under faults at random moments, and tells every promise that was broken')]
final class FaultMeasure extends Command
{
    protected function configure(): void
    {
        $this->addOption('runs', null, InputOption::VALUE_REQUIRED, 'How many', '200')->addOption('from', null, InputOption::VALUE_REQUIRED, 'The first seed', '1000');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $runs = SafeguardRuns::start();
        $from = (int) $input->getOption('from');
        $count = (int) $input->getOption('runs');
        $started = microtime(true);
        $by = [];
        $broken = 0;
        for ($seed = $from; $seed < $from + $count; $seed++) {
            $run = $runs->one($seed);
            $name = $run['fault'].($run['encrypted'] ? ', encrypted' : '');
            $by[$name] = ($by[$name] ?? 0) + 1;
            foreach ($run['faults'] as $fault) {
                $broken++;
                $output->writeln("seed {$seed}, {$name}: {$fault}");
            }
        }
        $runs->stop();
        ksort($by);
        foreach ($by as $name => $many) {
            $output->writeln(sprintf('%4d  %s', $many, $name));
        }
        $output->writeln(sprintf('%d runs in %.0f s; %d promises broken', $count, microtime(true) - $started, $broken));

        return 0;
    }
}
