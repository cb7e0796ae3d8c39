<?php

declare(strict_types=1);

namespace Tests\Measure;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Tests\Route\NaivePlanner;
use JadeStep\Core\Tests\Support\Sample;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('plan', 'Plans many situations against a catalogue of 200 models, 100 builds and 20,000 packages')]
final class PlanMeasure extends Command
{
    private const NAIVE_SAMPLE = 30;

    protected function configure(): void
    {
        $this->addOption('situations', null, InputOption::VALUE_REQUIRED, 'How many', '10000')
            ->addOption('processes', null, InputOption::VALUE_REQUIRED, 'On how many cores', '2');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        ini_set('memory_limit', '1G');
        $count = (int) $input->getOption('situations');
        $processes = max(1, (int) $input->getOption('processes'));
        $started = microtime(true);
        $document = LargeCatalogue::of(200, 100)->catalogue();
        $almanac = Sample::almanac($document);
        $output->writeln(
            sprintf(
                'catalogue: 200 models, 100 builds, 20,000 packages; made and read in %.1f s',
                microtime(true) - $started,
            ),
        );

        $seconds = $this->inParallel(
            $processes,
            fn (int $p) => $this->planAll($almanac, 200, intdiv($count, $processes), $p, $output),
        );
        $output->writeln(
            sprintf(
                '%d situations on %d processes: %.1f s, %.0f a second',
                $count,
                $processes,
                $seconds,
                $count / $seconds,
            ),
        );
        $this->otherModels($output);
        $this->againstNaive($document, $almanac, $output);

        return 0;
    }

    /** @return int how many were reachable */
    private function planAll(Almanac $almanac, int $models, int $count, int $seed, ?OutputInterface $output): int
    {
        $planner = new Planner($almanac);
        $reachable = 0;
        foreach (LargeCatalogue::of($models, 1, 100 + $seed)->situations($count, $models) as $situation) {
            $reachable += $planner->plan(Sample::read($situation))->isReachable() ? 1 : 0;
        }
        $output?->writeln(
            sprintf(
                '  process %d: %d of %d reachable, peak memory %.0f MB',
                $seed,
                $reachable,
                $count,
                memory_get_peak_usage(true) / 1e6,
            ),
        );

        return $reachable;
    }

    /** @param  callable(int): mixed  $work */
    private function inParallel(int $processes, callable $work): float
    {
        $started = microtime(true);
        $children = [];
        for ($p = 0; $p < $processes; $p++) {
            $pid = pcntl_fork();
            if ($pid === 0) {
                $work($p);
                exit(0);
            }
            $children[] = $pid;
        }
        array_map(static fn (int $pid) => pcntl_waitpid($pid, $status), $children);

        return microtime(true) - $started;
    }

    /** The cost of a situation must not depend on how many other models the catalogue has. */
    private function otherModels(OutputInterface $output): void
    {
        $time = function (int $models): float {
            $almanac = Sample::almanac(LargeCatalogue::of($models, 100)->catalogue());
            $started = hrtime(true);
            $this->planAll($almanac, min($models, 20), 600, 5, null);

            return (hrtime(true) - $started) / 600 / 1e6;
        };
        [$few, $many] = [$time(20), $time(200)];
        $output->writeln(
            sprintf(
                'a situation with 20 models: %.2f ms, with 200 models: %.2f ms, ratio %.2f',
                $few,
                $many,
                $many / $few,
            ),
        );
    }

    /** @param  array<string, mixed>  $document */
    private function againstNaive(array $document, Almanac $almanac, OutputInterface $output): void
    {
        $situations = iterator_to_array(LargeCatalogue::of(200, 1, 9)->situations(self::NAIVE_SAMPLE, 200));
        $started = hrtime(true);
        foreach ($situations as $situation) {
            (new Planner($almanac))->plan(Sample::read($situation));
        }
        $ours = hrtime(true) - $started;
        $started = hrtime(true);
        foreach ($situations as $situation) {
            NaivePlanner::plan([$document], $situation);
        }
        $output->writeln(
            sprintf(
                'against the naive enumeration, %d situations: %.1f times as fast',
                self::NAIVE_SAMPLE,
                (hrtime(true) - $started) / $ours,
            ),
        );
    }
}
