<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

/** Runs a small program of the system to its end. */
final class Program
{
    private const MOST_OUTPUT = 100_000;

    /**
     * @param  list<string>  $command
     * @return string|null what it printed, or null where it could not be run or failed
     */
    public static function output(array $command): ?string
    {
        $process = @proc_open(
            $command,
            [['file', '/dev/null', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
            null,
            ['LC_ALL' => 'C', 'PATH' => (string) getenv('PATH')],
        );
        if (! is_resource($process)) {
            return null;
        }
        $text = (string) stream_get_contents($pipes[1], self::MOST_OUTPUT);
        fclose($pipes[1]);

        return proc_close($process) === 0 ? $text : null;
    }
}
