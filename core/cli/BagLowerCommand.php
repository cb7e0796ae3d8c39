<?php

declare(strict_types=1);

namespace JadeStep\Cli;

use JadeStep\Core\Bag\Lowering;
use JadeStep\Core\Version\Version;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[
    AsCommand(
        'bag:lower',
        'Writes a copy of a bag that declares a lower version: exit status 0, or 2 refused, with the reason',
    ),
]
final class BagLowerCommand extends CoreCommand
{
    protected function configure(): void
    {
        $this->addArgument('dir', InputArgument::REQUIRED, 'The bag; it is only read')
            ->addOption('to', null, InputOption::VALUE_REQUIRED, 'The version that the copy declares, such as 8.7.0')
            ->addOption(
                'into',
                null,
                InputOption::VALUE_REQUIRED,
                'The folder of the copy, which must not be there yet',
            );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$to, $into] = [$input->getOption('to'), $input->getOption('into')];
        if (! is_string($to) || ! is_string($into)) {
            throw new \InvalidArgumentException('Name the version with --to and the new folder with --into.');
        }
        $now = new \DateTimeImmutable('now', new \DateTimeZone('UTC'));
        $copy = Lowering::lower(self::named($input, 'dir'), $into, Version::parse($to), basename($into), $now);
        $output->writeln(
            "Declared-Version: {$copy->original->declaredVersion} → {$copy->description->declaredVersion}",
            OutputInterface::OUTPUT_RAW,
        );
        $output->writeln(
            "Lowered-From: {$copy->original->id}; {$copy->linkedFiles} files share their bytes with it",
            OutputInterface::OUTPUT_RAW,
        );

        return 0;
    }
}
