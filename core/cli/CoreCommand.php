<?php

declare(strict_types=1);

namespace JadeStep\Cli;

use JadeStep\Core\Text;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Exception\ExceptionInterface;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;

/** A command whose errors go to standard error, one line each, with exit status 2 and without a stack trace. */
abstract class CoreCommand extends Command
{
    protected const BAD_INPUT = 2;

    public function run(InputInterface $input, OutputInterface $output): int
    {
        try {
            return parent::run($input, $output);
        } catch (ExceptionInterface|\InvalidArgumentException|\RuntimeException $e) {
            $errors = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
            foreach (explode("\n", $e->getMessage()) as $line) {
                $errors->writeln(Text::safe($line, 500), OutputInterface::OUTPUT_RAW);
            }

            return self::BAD_INPUT;
        }
    }

    protected static function named(InputInterface $input, string $argument): string
    {
        $value = $input->getArgument($argument);

        return is_string($value) ? $value : throw new \InvalidArgumentException("Name one {$argument}.");
    }

    protected static function fileText(string $file): string
    {
        return (string) stream_get_contents(self::opened($file));
    }

    /** @return resource to be read */
    protected static function opened(string $file)
    {
        $stream = is_file($file) ? @fopen($file, 'rb') : false;

        return $stream === false
            ? throw new \RuntimeException('"'.Text::safe($file).'" cannot be read: name a file that is there.')
            : $stream;
    }

    /** @param  array<string, mixed>  $document */
    protected static function json(array $document): string
    {
        return json_encode(
            $document,
            JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
        );
    }
}
