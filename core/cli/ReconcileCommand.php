<?php

declare(strict_types=1);

namespace JadeStep\Cli;

use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\KindComparison;
use JadeStep\Core\Bag\Reconciliation;
use JadeStep\Core\Bag\RewriteRule;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('reconcile', 'Compares two inventories: exit status 0 nothing missing, 1 something is, 2 bad input')]
final class ReconcileCommand extends CoreCommand
{
    protected function configure(): void
    {
        $this->addArgument('before', InputArgument::REQUIRED, 'The inventory of the backup (JSON Lines)')
            ->addArgument('after', InputArgument::REQUIRED, 'The device\'s listing afterwards (JSON Lines)');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $read = static function (string $name) use ($input): Inventory {
            $file = self::opened(self::named($input, $name));
            try {
                return Inventory::read($file);
            } finally {
                fclose($file);
            }
        };
        $proof = Reconciliation::compare($read('before'), $read('after'), RewriteRule::usual());
        foreach ($proof->kinds as $kind) {
            $output->writeln(self::line($kind), OutputInterface::OUTPUT_RAW);
            foreach ($kind->changed as $rewritten) {
                $output->writeln(
                    "  changed by the rule {$rewritten->rule->name}: {$kind->kind}/{$rewritten->path}",
                    OutputInterface::OUTPUT_RAW,
                );
            }
            foreach ($kind->missing as $item) {
                $output->writeln("  missing: {$item->key()}", OutputInterface::OUTPUT_RAW);
            }
        }
        $output->writeln(
            $proof->nothingMissing() ? 'Nothing missing.' : "{$proof->missing()} missing.",
            OutputInterface::OUTPUT_RAW,
        );

        return $proof->nothingMissing() ? 0 : 1;
    }

    private static function line(KindComparison $k): string
    {
        return sprintf(
            '%s: %d of %d the same, %d changed by design, %d missing, %d extra',
            $k->kind,
            $k->same,
            $k->before,
            count($k->changed),
            count($k->missing),
            count($k->extra),
        );
    }
}
