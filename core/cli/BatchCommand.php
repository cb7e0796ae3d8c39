<?php

declare(strict_types=1);

namespace JadeStep\Cli;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Batch\Foreseen;
use JadeStep\Core\Exchange\BatchDocument;
use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Exchange\ScheduleDocument;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[
    AsCommand(
        'batch',
        'Prints the schedule of a batch, how sure it is and what would help: exit status 0 all are expected in time, '
            .'1 some are late or have no route, 2 bad input',
    ),
]
final class BatchCommand extends CoreCommand
{
    protected function configure(): void
    {
        $this->addOption('batch', null, InputOption::VALUE_REQUIRED, 'The batch document')
            ->addOption(
                'catalogue',
                null,
                InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
                'A catalogue document, for devices with situations; may be given several times',
            );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $batch = $input->getOption('batch');
        if (! is_string($batch)) {
            throw new \InvalidArgumentException('Name one --batch.');
        }
        $files = array_values(array_filter((array) $input->getOption('catalogue'), is_string(...)));
        $catalogues = array_map(static fn (string $f) => CatalogueDocument::parse(self::fileText($f)), $files);
        $asked = BatchDocument::parse(self::fileText($batch), Almanac::of(...$catalogues));
        $start = $asked->batch->startsAt;
        $foreseen = Foreseen::of(
            $asked,
            // from files nothing has begun: an earlier start is always worth a look
            $start->modify('-1 day'),
            static fn (): float => hrtime(true) / 1e9,
        );
        $output->writeln(
            self::json(ScheduleDocument::write($foreseen, $asked->unplanned)),
            OutputInterface::OUTPUT_RAW,
        );

        return $foreseen->schedule->late() === [] && $asked->unplanned === [] ? 0 : 1;
    }
}
