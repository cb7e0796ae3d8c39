<?php

declare(strict_types=1);

namespace JadeStep\Cli;

use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\Verification;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[
    AsCommand(
        'bag:verify',
        'Reads every byte of a bag and names every fault: exit status 0 sound, 1 damaged, 2 not a bag',
    ),
]
final class BagVerifyCommand extends CoreCommand
{
    protected function configure(): void
    {
        $this->addArgument('dir', InputArgument::REQUIRED, 'The folder that holds bagit.txt')
            ->addOption('json', null, InputOption::VALUE_NONE, 'Print the report as JSON');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $report = BagVerifier::verify(self::named($input, 'dir'));
        $output->writeln(
            $input->getOption('json') === true ? self::json(self::document($report)) : self::text($report),
            OutputInterface::OUTPUT_RAW,
        );

        return $report->isSound() ? 0 : 1;
    }

    /** @return array<string, mixed> */
    private static function document(Verification $report): array
    {
        return [
            'sound' => $report->isSound(),
            'files' => $report->files,
            'bytes' => $report->bytes,
            'id' => $report->description?->id,
            'declaredVersion' => $report->description === null ? null : (string) $report->description->declaredVersion,
            'kinds' => (object) $report->counts,
            'faults' => array_map(
                static fn (Fault $f): array => ['code' => $f->code->value, 'path' => $f->path, 'detail' => $f->detail],
                $report->faults,
            ),
            'unchecked' => $report->unchecked,
        ];
    }

    private static function text(Verification $report): string
    {
        return implode("\n", [
            ($report->isSound() ? 'Sound: ' : 'Damaged: ').$report->summary(),
            ...array_map(static fn (Fault $f): string => $f->message(), $report->faults),
            ...array_map(
                static fn (string $name): string => "{$name}: not checked, since its algorithm is not known here",
                $report->unchecked,
            ),
        ]);
    }
}
