<?php

declare(strict_types=1);

namespace Tests\Measure;

use JadeStep\Core\Batch\Batch;
use JadeStep\Core\Batch\BatchDevice;
use JadeStep\Core\Batch\BatchStep;
use JadeStep\Core\Batch\Effort;
use JadeStep\Core\Batch\Helps;
use JadeStep\Core\Batch\PackageFetch;
use JadeStep\Core\Batch\Scheduler;
use JadeStep\Core\Batch\Shift;
use JadeStep\Core\Batch\Simulation;
use JadeStep\Core\Batch\WorkingHours;
use JadeStep\Core\Batch\Workshop;
use JadeStep\Core\Job\Need;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Route\Minutes;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[
    AsCommand(
        'batch',
        'Schedules fleets on eight ports with two technicians, plays them through, and tries what would help; or '
            .'drives batches on the practice rig, and tells how often the promised span held',
    ),
]
final class BatchMeasure extends Command
{
    private const SIZES = [10, 20, 40, 100, 200];

    /** @var array<string, array{int|float, int|float, int|float}> what does not move bytes, in minutes */
    private const MINUTES = [
        'pair' => [1, 2, 4],
        'choose-route' => [1, 2, 5],
        'seal-backup' => [0.1, 0.2, 1],
        'cross-line' => [0.5, 1, 3],
        'enter-recovery' => [1, 2, 5],
        'install' => [8, 10, 15],
        'wake' => [4, 6, 12],
        'lower-copy' => [0.1, 0.2, 1],
        'set-up' => [3, 5, 10],
        'bring-in' => [0.1, 0.2, 1],
        'prove' => [0.2, 0.5, 2],
        'hand-over' => [1, 2, 4],
    ];

    private const ORDER = [
        'pair', 'choose-route', 'back-up', 'verify-backup', 'seal-backup', 'cross-line', 'prove-safety',
        'enter-recovery', 'install', 'wake', 'lower-copy', 'put-back', 'set-up', 'bring-in', 'prove', 'hand-over',
    ];

    protected function configure(): void
    {
        $this->addOption('devices', null, InputOption::VALUE_REQUIRED, 'Only this many')
            ->addOption('drive', null, InputOption::VALUE_NONE, 'Drives twelve devices on the rig, run after run')
            ->addOption('runs', null, InputOption::VALUE_REQUIRED, 'How often they are driven', '100')
            ->addOption('from', null, InputOption::VALUE_REQUIRED, 'The seed of the first run', '1');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        if ($input->getOption('drive') === true) {
            DrivenRuns::drive(max(1, (int) $input->getOption('runs')), (int) $input->getOption('from'), $output);

            return self::SUCCESS;
        }
        $only = $input->getOption('devices');
        $clock = static fn (): float => hrtime(true) / 1e9;
        $output->writeln('devices  steps  schedule s  simulation s  help s  peak MB  last done after h  chance');
        foreach (is_string($only) ? [max(1, (int) $only)] : self::SIZES as $many) {
            $batch = self::fleet($many);
            $begun = $clock();
            $schedule = Scheduler::schedule($batch, Effort::usual(1), $clock);
            $scheduled = $clock();
            $outlook = Simulation::play($schedule, 1);
            $played = $clock();
            Helps::of($schedule, $outlook, Effort::small(1), $batch->startsAt->modify('-1 day'), $clock);
            $output->writeln(sprintf(
                '%7d %6d %11.2f %13.2f %7.2f %8d %18.1f %7.2f',
                $many,
                count($schedule->steps),
                $scheduled - $begun,
                $played - $scheduled,
                $clock() - $played,
                memory_get_peak_usage() / 1e6,
                $batch->seconds($schedule->finishesAt()) / 3600,
                $outlook->chance,
            ));
        }

        return self::SUCCESS;
    }

    /** Phones with 4 to 40 GB each at 30 MB/s, three packages of 6.5 GB, people there from 8 to 17 on weekdays. */
    private static function fleet(int $many): Batch
    {
        $chance = new Randomizer(new Mt19937($many));
        $devices = [];
        for ($i = 0; $i < $many; $i++) {
            $devices[] = new BatchDevice("d{$i}", "Phone {$i}", self::steps($chance->getInt(4, 40) * 1e9, $i % 3));
        }
        $hours = WorkingHours::of(
            [new Shift([1, 2, 3, 4, 5], '08:00', '17:00')],
            new \DateTimeZone('Europe/Oslo'),
        );
        $start = new \DateTimeImmutable('2026-11-30T07:00:00Z');
        $fetch = static fn (int $p): PackageFetch => new PackageFetch("p{$p}", Minutes::of(16, 18, 27));

        return new Batch(
            $start,
            $start->modify('+'.intdiv($many * 20, 60).' hours'),
            Workshop::of(8, 2, 4, 1, 4, $hours),
            $devices,
            array_map($fetch, [0, 1, 2]),
        );
    }

    /** @return list<BatchStep> */
    private static function steps(float $bytes, int $package): array
    {
        $moved = $bytes / 30e6 / 60;
        $read = $bytes / 200e6 / 60;
        $times = self::MINUTES + [
            'back-up' => [0.9 * $moved, $moved, 1.5 * $moved],
            'verify-backup' => [0.9 * $read, $read, 1.5 * $read],
            'prove-safety' => [0.9 * $read, $read, 1.5 * $read],
            'put-back' => [0.9 * $moved, $moved, 1.5 * $moved],
        ];
        $steps = [];
        foreach (self::ORDER as $i => $code) {
            $steps[] = new BatchStep(
                $code,
                0,
                Minutes::of(...$times[$code]),
                array_map(static fn (Need $n): string => $n->value, StepCode::from($code)->needs()),
                $i === 0 ? [] : [$i - 1],
                null,
                null,
                $code === 'cross-line' ? ["p{$package}"] : [],
            );
        }

        return $steps;
    }
}
