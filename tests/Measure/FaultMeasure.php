<?php

declare(strict_types=1);

namespace Tests\Measure;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Tests\Fault\InstallRuns;
use Tests\Fault\SafeguardRuns;

#[AsCommand('fault', 'Runs jobs under faults at random moments, and tells every promise that was broken')]
final class FaultMeasure extends Command
{
    protected function configure(): void
    {
        $this->addOption(
            'what',
            null,
            InputOption::VALUE_REQUIRED,
            'safeguard: to the erase line; install: all the way, eight devices at once',
            'safeguard',
        )
            ->addOption('runs', null, InputOption::VALUE_REQUIRED, 'How many', '200')
            ->addOption('from', null, InputOption::VALUE_REQUIRED, 'The first seed', '1000');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $from = (int) $input->getOption('from');
        $count = (int) $input->getOption('runs');
        $started = microtime(true);
        [$by, $broken] =
            $input->getOption('what') === 'install'
                ? $this->install($from, $count, $output)
                : $this->safeguard($from, $count, $output);
        ksort($by);
        foreach ($by as $name => $many) {
            $output->writeln(sprintf('%4d  %s', $many, $name));
        }
        $output->writeln(sprintf('%d runs in %.0f s; %d promises broken', $count, microtime(true) - $started, $broken));

        return 0;
    }

    /** @return array{array<string, int>, int} how often what happened, and the broken promises */
    private function safeguard(int $from, int $count, OutputInterface $output): array
    {
        $runs = SafeguardRuns::start();
        [$by, $broken] = [[], 0];
        for ($seed = $from; $seed < $from + $count; $seed++) {
            $run = $runs->one($seed);
            $name = $run['fault'].($run['encrypted'] ? ', encrypted' : '');
            $by[$name] = ($by[$name] ?? 0) + 1;
            $broken += $this->tell($output, "seed {$seed}, {$name}", $run['faults']);
        }
        $runs->stop();

        return [$by, $broken];
    }

    /** @return array{array<string, int>, int} */
    private function install(int $from, int $count, OutputInterface $output): array
    {
        $runs = InstallRuns::start();
        $broken = 0;
        for ($seed = $from; $seed < $from + $count; $seed += InstallRuns::AT_ONCE) {
            foreach ($runs->batch(range($seed, min($seed + InstallRuns::AT_ONCE, $from + $count) - 1)) as $run) {
                $broken += $this->tell(
                    $output,
                    "seed {$run['seed']}, {$run['serial']}, ".implode(', ', $run['faults']),
                    $run['broken'],
                );
            }
        }
        $asked = $runs->asked();
        $runs->stop();

        return [$asked, $broken];
    }

    /** @param  list<string>  $broken */
    private function tell(OutputInterface $output, string $where, array $broken): int
    {
        foreach ($broken as $promise) {
            $output->writeln("{$where}: {$promise}");
        }

        return count($broken);
    }
}
