<?php

declare(strict_types=1);

namespace JadeStep\Cli;

use JadeStep\Core\Bag\Exception\UntrustedArchive;
use JadeStep\Core\Bag\ImportLimits;
use JadeStep\Core\Bag\ZipBag;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('bag:unpack', 'Unpacks a ZIP that carries a bag, when every entry of it may be written')]
final class BagUnpackCommand extends CoreCommand
{
    protected function configure(): void
    {
        $this->addArgument('file', InputArgument::REQUIRED, 'The ZIP')
            ->addOption('into', null, InputOption::VALUE_REQUIRED, 'A folder that is not there yet')
            ->addOption('json', null, InputOption::VALUE_NONE, 'Print a document, also where it is refused');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $file = self::named($input, 'file');
        fclose(self::opened($file));
        $into = $input->getOption('into');
        if (! is_string($into) || $into === '') {
            throw new \RuntimeException('Name a folder that is not there yet: --into FOLDER.');
        }
        $free = disk_free_space(is_dir(dirname($into)) ? dirname($into) : '.');
        try {
            $folder = ZipBag::unpack($file, $into, ImportLimits::usual($free === false ? 0 : (int) $free));
        } catch (UntrustedArchive $e) {
            if ($input->getOption('json') !== true) {
                throw $e;
            }
            $output->write(self::json(['refused' => $e->reason, 'message' => $e->getMessage()]));

            return 2;
        }
        $output->write(
            $input->getOption('json') === true ? self::json(['folder' => $folder]) : "{$folder}\n",
            false,
            OutputInterface::OUTPUT_RAW,
        );

        return 0;
    }
}
