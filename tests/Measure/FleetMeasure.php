<?php

declare(strict_types=1);

namespace Tests\Measure;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Tests\Fault\InstallRuns;
use Tests\Support\RunningSystem;
use Tests\Support\Visitor;

#[
    AsCommand(
        'fleet',
        'Takes many devices all the way at once, and tells how many arrive, how long the Bench takes to answer '
            .'meanwhile, how long steps wait for a worker, and what the machine is busy with',
    ),
]
final class FleetMeasure extends Command
{
    /** What runs, and what stands in the command lines of its processes. */
    private const PARTS = [
        'workers' => 'queue:work',
        'rig' => 'pool rig',
        'vendor' => 'pool vendor',
        'web' => 'pool web',
        'database' => 'mariadbd',
        'hands and measure' => 'bin/measure',
    ];

    /** Of the cores' time, from which on nothing runs sooner for more workers. */
    private const ALL_BUSY = 0.85;

    private const LONG_WAIT = 2.0;

    /** @var array<string, list<float>> milliseconds of answers, and seconds that steps have waited */
    private array $took = ['bench' => [], 'alive' => [], 'waits' => []];

    protected function configure(): void
    {
        $this->addOption(
            'speed',
            null,
            InputOption::VALUE_REQUIRED,
            'How much faster than usual the simulated devices are',
            '5',
        );
        $this->addOption(
            'devices',
            null,
            InputOption::VALUE_REQUIRED,
            'How many: more than eight are made by a seed',
            (string) InstallRuns::AT_ONCE,
        );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $many = max(1, (int) $input->getOption('devices'));
        $fleet = InstallRuns::harmless((float) $input->getOption('speed'), $many);
        $system = $fleet->system();
        $visitor = $fleet->visitor();
        $busy = self::busy();
        $started = microtime(true);
        $ended = $fleet->batch(range(1, $many), function () use ($visitor, $system): void {
            $this->look($visitor, $system);
        });
        $seconds = microtime(true) - $started;
        $arrived = count(array_filter($ended, static fn (array $r): bool => $r['broken'] === []));
        $output->writeln(
            sprintf(
                '%d of %d devices arrived in %.0f s: %.1f devices an hour of work at this speed of theirs',
                $arrived,
                count($ended),
                $seconds,
                ($arrived / $seconds) * 3600,
            ),
        );
        foreach ($ended as $run) {
            array_map(static fn (string $b) => $output->writeln("{$run['serial']}: {$b}"), $run['broken']);
        }
        $this->tellAnswers($output);
        $busy = self::tellBusy($output, $busy, $seconds);
        $output->writeln('what limits: '.match (true) {
            $busy > self::ALL_BUSY => 'the cores',
            $this->at('waits', 0.5) > self::LONG_WAIT => 'the number of workers, which more of them on this or on '
                .'other machines would raise',
            default => 'the devices themselves',
        });
        $fleet->stop();

        return 0;
    }

    private function look(Visitor $visitor, RunningSystem $system): void
    {
        for ($i = 0; $i < 4; $i++) {
            foreach (['bench', 'alive'] as $what) {
                $started = microtime(true);
                $visitor->send('GET', "/{$what}");
                $this->took[$what][] = (microtime(true) - $started) * 1000;
            }
            usleep(60_000);
        }
        // due, and taken by nobody yet: the longest of them tells what a step waits for a worker
        $oldest = $system->database()->query('SELECT MAX(UNIX_TIMESTAMP() - available_at) FROM queue_jobs
            WHERE reserved_at IS NULL AND available_at <= UNIX_TIMESTAMP()')->fetchColumn();
        $this->took['waits'][] = (float) $oldest;
    }

    private function tellAnswers(OutputInterface $output): void
    {
        array_walk($this->took, static function (array &$times): void {
            sort($times);
        });
        foreach (['bench', 'alive'] as $what) {
            $output->writeln(
                sprintf(
                    'GET /%-6s p50 %6.1f ms, p95 %6.1f ms, of %d',
                    $what,
                    $this->at($what, 0.5),
                    $this->at($what, 0.95),
                    count($this->took[$what]),
                ),
            );
        }
        $output->writeln(
            sprintf(
                'the Bench takes %.1f times (p50) and %.1f times (p95) as long as an empty Laravel route in the '
                    .'same run',
                $this->at('bench', 0.5) / $this->at('alive', 0.5),
                $this->at('bench', 0.95) / $this->at('alive', 0.95),
            ),
        );
        $output->writeln(
            sprintf(
                'what is due waits for a worker: p50 %.0f s, p95 %.0f s, at most %.0f s',
                $this->at('waits', 0.5),
                $this->at('waits', 0.95),
                $this->at('waits', 1.0),
            ),
        );
    }

    private function at(string $what, float $share): float
    {
        return $this->took[$what][(int) floor((count($this->took[$what]) - 1) * $share)] ?? 0.0;
    }

    /**
     * Of the time of the cores each part has a share.
     *
     * @param  array<string, float>  $before
     * @return float the share that all of them have together
     */
    private static function tellBusy(OutputInterface $output, array $before, float $seconds): float
    {
        $cores = (int) shell_exec('nproc');
        $parts = [];
        $all = 0.0;
        foreach (self::busy() as $part => $used) {
            $share = max(0.0, $used - $before[$part]) / ($seconds * $cores);
            $parts[] = sprintf('%s %.0f %%', $part, 100 * $share);
            $all += $share;
        }
        $output->writeln("of the time of {$cores} cores: ".implode(', ', $parts));

        return $all;
    }

    /** @return array<string, float> seconds of processors that each part has used, with children that have ended */
    private static function busy(): array
    {
        $used = array_fill_keys(array_keys(self::PARTS), 0.0);
        foreach (glob('/proc/[0-9]*/stat') ?: [] as $file) {
            $words = str_replace("\0", ' ', (string) @file_get_contents(dirname($file).'/cmdline'));
            $numbers = explode(' ', (string) preg_replace('/^.*\) /s', '', (string) @file_get_contents($file)));
            foreach (self::PARTS as $part => $named) {
                if (str_contains($words, $named) && isset($numbers[14])) {
                    $used[$part] += array_sum(array_slice($numbers, 11, 4)) / 100;
                }
            }
        }

        return $used;
    }
}
