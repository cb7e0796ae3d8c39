<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

/** Runs a small program of the system to its end. */
final class Program
{
    /**
     * @param  list<string>  $command
     * @param  string|null  $in  the folder to run it in
     * @return string|null what it printed, or null where it could not be run or failed
     */
    public static function output(array $command, ?string $in = null): ?string
    {
        $process = @proc_open(
            $command,
            [['file', '/dev/null', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
            $in,
            ['LC_ALL' => 'C', 'PATH' => (string) getenv('PATH')],
        );
        if (! is_resource($process)) {
            return null;
        }
        $text = (string) stream_get_contents($pipes[1]);
        fclose($pipes[1]);

        return proc_close($process) === 0 ? $text : null;
    }
}
