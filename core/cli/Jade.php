<?php

declare(strict_types=1);

namespace JadeStep\Cli;

use Symfony\Component\Console\Application;

/** The command line application. */
final class Jade
{
    public static function application(): Application
    {
        $application = new Application('Jade Step');
        $commands = [
            new PlanCommand, new BatchCommand, new ReconcileCommand,
            new BagVerifyCommand, new BagLowerCommand, new BagUnpackCommand,
        ];
        foreach ($commands as $command) {
            $application->add($command);
        }

        return $application;
    }
}
