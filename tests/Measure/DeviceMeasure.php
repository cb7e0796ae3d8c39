<?php

declare(strict_types=1);

namespace Tests\Measure;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[
    AsCommand(
        'device',
        'Backs a large device up over the link, as a job does, beside a plain client that fetches, hashes and writes '
            .'the same from the same device',
    ),
]
final class DeviceMeasure extends Command
{
    private const PORT = 9460;

    protected function configure(): void
    {
        $this->addOption('items', null, InputOption::VALUE_REQUIRED, 'How many items', '30000');
        $this->addOption('kilobytes', null, InputOption::VALUE_REQUIRED, 'How large each is', '64');
        $this->addOption('no-batch', null, InputOption::VALUE_NONE, 'The link gives items one by one only');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $items = max(1, (int) $input->getOption('items'));
        $device = LargeDevice::start(
            'measure-device',
            self::PORT,
            $items,
            1024 * max(1, (int) $input->getOption('kilobytes')),
            $input->getOption('no-batch') === true,
        );
        $megabytes = $device->megabytes();
        $output->writeln(sprintf('%d items, %.1f GB', $items, $megabytes / 1000));
        $tell = static fn (string $who, float $seconds) => $output->writeln(
            sprintf('%s: %.1f s, %.0f items/s, %.0f MB/s', $who, $seconds, $items / $seconds, $megabytes / $seconds),
        );
        $plain = $device->plainClient();
        $tell('plain client', $plain);
        $before = $device->sent();
        $took = $device->backUp();
        $sent = $device->sent();
        $tell('backed up', $took['back-up']);
        $output->writeln(sprintf(
            '%.2f of the plain client, with %d requests; verified in %.1f s; most memory of the worker %d MB',
            $plain / $took['back-up'],
            $sent['requests'] - $before['requests'],
            $took['verify-backup'],
            $device->peakOfWorker(),
        ));
        [$ours, $theirs] = $device->sendBack();
        $tell('plain client sends it back', $theirs);
        $tell('sent back', $ours);
        $output->writeln(sprintf('%.2f of the plain client', $theirs / $ours));
        $device->stop();

        return self::SUCCESS;
    }
}
