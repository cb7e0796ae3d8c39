<?php

declare(strict_types=1);

namespace JadeStep\Cli;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Exchange\Format;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Exchange\SituationDocument;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Text;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[
    AsCommand(
        'plan',
        'Prints the plan for a situation: exit status 0 reachable, 1 blocked, 2 bad input; with --lines one for each '
            .'line: 0, or 2 where a catalogue cannot be used',
    ),
]
final class PlanCommand extends CoreCommand
{
    protected function configure(): void
    {
        $this->addOption(
            'catalogue',
            null,
            InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
            'A catalogue document; may be given several times',
        )
            ->addOption('situation', null, InputOption::VALUE_REQUIRED, 'The situation document')
            ->addOption(
                'lines',
                null,
                InputOption::VALUE_NONE,
                'Read one situation a line from standard input, and write one plan (or {"error": "…"}) a line',
            );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $files = array_values(array_filter((array) $input->getOption('catalogue'), is_string(...)));
        $situation = $input->getOption('situation');
        $byLines = $input->getOption('lines') === true;
        if ($files === [] || is_string($situation) === $byLines) {
            throw new \InvalidArgumentException(
                'Name at least one --catalogue, and one --situation or --lines.',
            );
        }
        $catalogues = array_map(static fn (string $f) => CatalogueDocument::parse(self::fileText($f)), $files);
        $planner = new Planner(Almanac::of(...$catalogues));
        if (! is_string($situation)) {
            return self::planLines($planner, $output);
        }
        $plan = $planner->plan(SituationDocument::parse(self::fileText($situation)));
        $output->writeln(self::json(PlanDocument::write($plan)), OutputInterface::OUTPUT_RAW);

        return $plan->isReachable() ? 0 : 1;
    }

    /** As many answers as lines, in their order: a line that cannot be used has its error, and the next goes on. */
    private static function planLines(Planner $planner, OutputInterface $output): int
    {
        $longest = Format::Situation->mostBytes();
        while (($line = fgets(STDIN, $longest + 2)) !== false) {
            $isWhole = str_ends_with($line, "\n") || feof(STDIN);
            while (! $isWhole && ($rest = fgets(STDIN, $longest)) !== false) {
                $isWhole = str_ends_with($rest, "\n");
            }
            $output->writeln(
                json_encode(
                    self::answer($planner, $line),
                    JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
                ),
                OutputInterface::OUTPUT_RAW,
            );
        }

        return 0;
    }

    /** @return array<string, mixed> */
    private static function answer(Planner $planner, string $line): array
    {
        try {
            return PlanDocument::write($planner->plan(SituationDocument::parse($line)));
        } catch (InvalidDocument $e) {
            return ['error' => Text::safe(str_replace("\n", '; ', $e->getMessage()), 2000)];
        }
    }
}
