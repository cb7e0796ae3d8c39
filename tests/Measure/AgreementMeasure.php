<?php

declare(strict_types=1);

namespace Tests\Measure;

use JadeStep\Core\Tests\Route\AgreementRuns;
use JadeStep\Core\Tests\Support\RandomSituations;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('agreement', 'Holds the search for routes against the exhaustive enumeration on random small situations')]
final class AgreementMeasure extends Command
{
    protected function configure(): void
    {
        $this->addOption('situations', null, InputOption::VALUE_REQUIRED, 'How many', '2500')
            ->addOption('seed', null, InputOption::VALUE_REQUIRED, 'Which situations', '20261120');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $count = (int) $input->getOption('situations');
        $runs = new AgreementRuns(new RandomSituations((int) $input->getOption('seed')));
        $started = microtime(true);
        for ($i = 1; $i <= $count; $i++) {
            $runs->one();
            $i % 500 !== 0 || $output->writeln("{$i} of {$count} situations");
        }
        foreach ($runs->seen() as $corner => $many) {
            $output->writeln(sprintf('%6d  %s', $many, $corner));
        }
        array_map($output->writeln(...), $runs->differing());
        $output->writeln(sprintf(
            '%d situations in %.0f s: the two differ on %d',
            $count,
            microtime(true) - $started,
            count($runs->differing()),
        ));

        return 0;
    }
}
