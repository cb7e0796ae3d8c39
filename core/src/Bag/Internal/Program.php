<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

/** Runs a small program of the system to its end. */
final class Program
{
    private const LONGEST_RECORD = 1_048_576;

    /**
     * @param  list<string>  $command
     * @param  string|null  $in  the folder to run it in
     * @return string|null what it printed, or null where it could not be run or failed
     */
    public static function output(array $command, ?string $in = null): ?string
    {
        $started = self::start($command, $in);
        if ($started === null) {
            return null;
        }
        [$process, $out] = $started;
        $text = (string) stream_get_contents($out);
        fclose($out);

        return proc_close($process) === 0 ? $text : null;
    }

    /**
     * Runs to its end while something else is done here; where that is broken off, so is the program.
     *
     * @param  list<string>  $command
     * @param  callable(): void  $meanwhile
     * @return bool whether it could be run and succeeded
     */
    public static function beside(array $command, callable $meanwhile): bool
    {
        $started = self::start($command, null);
        try {
            $meanwhile();
        } catch (\Throwable $e) {
            if ($started !== null) {
                proc_terminate($started[0]);
                proc_close($started[0]);
            }

            throw $e;
        }
        if ($started === null) {
            return false;
        }
        stream_get_contents($started[1]);

        return proc_close($started[0]) === 0;
    }

    /**
     * Runs to its end on what it is given bit by bit.
     *
     * @param  list<string>  $command
     * @param  iterable<string>  $given
     * @return bool whether it could be run and succeeded
     */
    public static function fed(array $command, iterable $given, string $in): bool
    {
        $nothing = ['file', '/dev/null', 'w'];
        $process = @proc_open($command, [['pipe', 'r'], $nothing, $nothing], $pipes, $in, self::environment());
        if (! is_resource($process)) {
            return false;
        }
        $isTaken = true;
        foreach ($given as $piece) {
            $isTaken = $isTaken && @fwrite($pipes[0], $piece) === strlen($piece);
        }
        fclose($pipes[0]);

        return proc_close($process) === 0 && $isTaken;
    }

    /** @return array<string, string> what a program is told of its surroundings, and no more */
    public static function environment(): array
    {
        return ['LC_ALL' => 'C', 'PATH' => (string) getenv('PATH')];
    }

    /**
     * What it prints, record by record as it comes; its status is what the generator returns.
     *
     * @param  list<string>  $command
     * @param  string|null  $in  the folder to run it in
     * @return \Generator<int, string, mixed, int>|null null where it could not be run
     */
    public static function records(array $command, ?string $in = null, string $end = "\0"): ?\Generator
    {
        $started = self::start($command, $in);

        return $started === null ? null : (static function () use ($started, $end): \Generator {
            [$process, $out] = $started;
            try {
                while (($record = stream_get_line($out, self::LONGEST_RECORD, $end)) !== false) {
                    yield $record;
                }
            } finally {
                fclose($out);
                $status = proc_close($process);
            }

            return $status;
        })();
    }

    /**
     * @param  list<string>  $command
     * @return array{resource, resource}|null the process, and what it prints
     */
    private static function start(array $command, ?string $in): ?array
    {
        $process = @proc_open(
            $command,
            [['file', '/dev/null', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
            $in,
            self::environment(),
        );

        return is_resource($process) ? [$process, $pipes[1]] : null;
    }
}
