<?php

declare(strict_types=1);

namespace Tests\Measure;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Process\Process;
use Tests\Fault\PromiseRuns;

#[AsCommand('promise', 'Holds the ledger\'s promise for each kind against what the simulated device delivers')]
final class PromiseMeasure extends Command
{
    protected function configure(): void
    {
        $this->addOption('runs', null, InputOption::VALUE_REQUIRED, 'How many', '2000')->addOption(
            'from',
            null,
            InputOption::VALUE_REQUIRED,
            'The first seed',
            '10000',
        );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $root = sys_get_temp_dir().'/jade-step-promises-'.getmypid();
        $runs = new PromiseRuns($root);
        [$from, $count, $started] = [(int) $input->getOption('from'), (int) $input->getOption('runs'), microtime(true)];
        [$kinds, $wrong, $by] = [0, 0, []];
        for ($seed = $from; $seed < $from + $count; $seed++) {
            $run = $runs->one($seed);
            $kinds += $run['kinds'];
            $wrong += count($run['disagreements']);
            foreach ([$run['choice'], ...$run['faults']] as $name) {
                $by[$name] = ($by[$name] ?? 0) + 1;
            }
            foreach ($run['disagreements'] as $words) {
                $output->writeln("seed {$seed}, {$run['choice']}: {$words}");
            }
        }
        (new Process(['rm', '-rf', $root]))->run();
        ksort($by);
        foreach ($by as $name => $many) {
            $output->writeln(sprintf('%5d  %s', $many, $name));
        }
        $output->writeln(
            sprintf(
                '%d runs, %d promises on kinds, %d disagreements, in %.0f s',
                $count,
                $kinds,
                $wrong,
                microtime(true) - $started,
            ),
        );

        return 0;
    }
}
