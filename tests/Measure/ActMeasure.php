<?php

declare(strict_types=1);

namespace Tests\Measure;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Tests\Fault\ActRuns;

/** People do anything at any moment; how often what was done, and each promise that broke. */
#[AsCommand('acts', 'Lets people do anything at any moment, and tells every promise that was broken')]
final class ActMeasure extends Command
{
    private const TOLD_EVERY = 50;

    protected function configure(): void
    {
        $this->addOption('runs', null, InputOption::VALUE_REQUIRED, 'How many', '100')
            ->addOption('from', null, InputOption::VALUE_REQUIRED, 'The first seed', '1000');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $from = (int) $input->getOption('from');
        $count = (int) $input->getOption('runs');
        $started = microtime(true);
        $runs = ActRuns::start();
        $ended = [];
        $broken = 0;
        for ($seed = $from; $seed < $from + $count; $seed++) {
            $run = $runs->one($seed);
            $ended[$run['ended']] = ($ended[$run['ended']] ?? 0) + 1;
            if (array_sum($ended) % self::TOLD_EVERY === 0) {
                $output->writeln(sprintf('%d of %d runs', array_sum($ended), $count));
            }
            foreach ($run['broken'] as $promise) {
                $broken++;
                $output->writeln("seed {$seed}, {$run['serial']}: {$promise}");
                $output->writeln(
                    '    after '.implode(' · ', array_slice($run['acts'], -12)),
                    OutputInterface::VERBOSITY_VERBOSE,
                );
            }
        }
        foreach ($runs->done() as $what => $many) {
            $output->writeln(sprintf('%5d  %s', $many, $what));
        }
        $runs->stop();
        ksort($ended);
        $ends = implode(
            ', ',
            array_map(static fn (string $state, int $many): string => "{$many} {$state}", array_keys($ended), $ended),
        );
        $output->writeln(
            sprintf('%d runs in %.0f s: %s; %d promises broken', $count, microtime(true) - $started, $ends, $broken),
        );

        return 0;
    }
}
