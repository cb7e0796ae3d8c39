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
        foreach ([new PlanCommand, new BagVerifyCommand, new BagLowerCommand, new ReconcileCommand] as $command) {
            $application->add($command);
        }

        return $application;
    }
}
