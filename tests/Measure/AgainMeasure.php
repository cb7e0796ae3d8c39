<?php

declare(strict_types=1);

namespace Tests\Measure;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('again', 'Backs a large device up twice, and tells what the second backup costs when little has changed')]
final class AgainMeasure extends Command
{
    private const PORT = 9470;

    protected function configure(): void
    {
        $this->addOption('items', null, InputOption::VALUE_REQUIRED, 'How many items', '30000');
        $this->addOption('kilobytes', null, InputOption::VALUE_REQUIRED, 'How large each is', '64');
        $this->addOption('changed', null, InputOption::VALUE_REQUIRED, 'How many percent change', '1');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $items = max(1, (int) $input->getOption('items'));
        $share = (float) $input->getOption('changed') / 100;
        $device = LargeDevice::start(
            'measure-again',
            self::PORT,
            $items,
            1024 * max(1, (int) $input->getOption('kilobytes')),
            false,
        );
        $first = $device->backUp();
        $disk = $device->onDisk();
        $device->change($share);
        $second = $device->backUp();
        $changed = $device->megabytes() * $share;
        $output->writeln(sprintf(
            "%d items, %.0f MB, of which %.1f MB changed\n"
                ."first: backed up in %.1f s, verified in %.1f s, %.0f MB on the disk\n"
                ."second: backed up in %.1f s, %.2f of the first; verified in %.1f s\n"
                .'  content over the link %.1f MB, %.2f of what changed; on the disk %.1f MB more, %.2f of it',
            $items,
            $device->megabytes(),
            $changed,
            $first['back-up'],
            $first['verify-backup'],
            $disk,
            $second['back-up'],
            $second['back-up'] / $first['back-up'],
            $second['verify-backup'],
            $device->sent()['bytes'] / 1e6,
            $device->sent()['bytes'] / 1e6 / $changed,
            $device->onDisk() - $disk,
            ($device->onDisk() - $disk) / $changed,
        ));
        $device->stop();

        return self::SUCCESS;
    }
}
