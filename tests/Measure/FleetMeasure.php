<?php

declare(strict_types=1);

namespace Tests\Measure;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Tests\Fault\InstallRuns;

#[
    AsCommand(
        'fleet',
        'Takes eight devices all the way at once, and tells the throughput and how long the Bench takes to '
            .'answer meanwhile',
    ),
]
final class FleetMeasure extends Command
{
    protected function configure(): void
    {
        $this->addOption(
            'speed',
            null,
            InputOption::VALUE_REQUIRED,
            'How much faster than usual the simulated devices are',
            '5',
        );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $fleet = InstallRuns::harmless((float) $input->getOption('speed'));
        $visitor = $fleet->visitor();
        $took = ['bench' => [], 'alive' => []];
        $ask = static function (string $what) use ($visitor, &$took): void {
            $started = microtime(true);
            $visitor->send('GET', "/{$what}");
            $took[$what][] = (microtime(true) - $started) * 1000;
        };
        $started = microtime(true);
        $ended = $fleet->batch(range(1, InstallRuns::AT_ONCE), static function () use ($ask): void {
            for ($i = 0; $i < 4; $i++) {
                $ask('bench');
                $ask('alive');
                usleep(60_000);
            }
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
        $p = [];
        foreach ($took as $what => $times) {
            sort($times);
            $p[$what] = [self::at($times, 0.5), self::at($times, 0.95)];
            $output->writeln(
                sprintf(
                    'GET /%-6s p50 %6.1f ms, p95 %6.1f ms, of %d',
                    $what,
                    $p[$what][0],
                    $p[$what][1],
                    count($times),
                ),
            );
        }
        $output->writeln(
            sprintf(
                'the Bench takes %.1f times (p50) and %.1f times (p95) as long as an empty Laravel route in the '
                    .'same run',
                $p['bench'][0] / $p['alive'][0],
                $p['bench'][1] / $p['alive'][1],
            ),
        );
        $fleet->stop();

        return 0;
    }

    /** @param  list<float>  $sorted */
    private static function at(array $sorted, float $share): float
    {
        return $sorted[(int) floor((count($sorted) - 1) * $share)] ?? 0.0;
    }
}
