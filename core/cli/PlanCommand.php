<?php

declare(strict_types=1);

namespace JadeStep\Cli;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Exchange\SituationDocument;
use JadeStep\Core\Route\Planner;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('plan', 'Prints the plan for a situation: exit status 0 reachable, 1 blocked, 2 bad input')]
final class PlanCommand extends CoreCommand
{
    protected function configure(): void
    {
        $this->addOption(
            'catalogue',
            null,
            InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
            'A catalogue document; may be given several times',
        )->addOption('situation', null, InputOption::VALUE_REQUIRED, 'The situation document');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $files = array_filter((array) $input->getOption('catalogue'), is_string(...));
        $situation = $input->getOption('situation');
        if ($files === [] || ! is_string($situation)) {
            throw new \InvalidArgumentException('Name at least one --catalogue and one --situation.');
        }
        $catalogues = array_map(
            static fn (string $f) => CatalogueDocument::parse(self::fileText($f)),
            array_values($files),
        );
        $plan = (new Planner(Almanac::of(...$catalogues)))->plan(SituationDocument::parse(self::fileText($situation)));
        $output->writeln(self::json(PlanDocument::write($plan)), OutputInterface::OUTPUT_RAW);

        return $plan->isReachable() ? 0 : 1;
    }
}
