<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Digest;

/**
 * Takes digests of many files as they are given to it: in batches, with the openssl program, one process a core, and of
 * small files here while all of them are busy. How far a process is, is read off its own counters where the system
 * shows them.
 *
 * @template K of array-key
 */
final class DigestPool
{
    private const BATCH_BYTES = 67_108_864;

    private const SMALL_FILES = 2_000;

    private const SMALL_BATCH_BYTES = 16_777_216;

    /** Up to so large a file is read at once, here. */
    private const SMALL_BYTES = 1_048_576;

    /** So many are read here between two looks at the processes. */
    private const SMALL_AT_ONCE = 64;

    private const POLL_MICROSECONDS = 3_000;

    /**
     * @var array<int, array{process: resource, out: resource, batch: array<K, array{string, int, string}>, bytes: int,
     *   told: int}>
     */
    private array $running = [];

    /** @var array<K, string|null> that are others than is said, and were not given out yet */
    private array $others = [];

    /** @param  (callable(int): void)|null  $read */
    private function __construct(private $read, private readonly string $algorithm)
    {
    }

    /**
     * @template F of array-key
     *
     * @param  iterable<F, array{string, int, string}>  $files
     * @param  (callable(int): void)|null  $read
     * @return \Generator<F, string|null>
     */
    public static function run(iterable $files, ?callable $read, string $algorithm): \Generator
    {
        /** @var self<F> $pool */
        $pool = new self($read, $algorithm);
        try {
            foreach (self::batches($files) as [$batch, $bytes, $isSmall]) {
                $pool->take($batch, $bytes, $isSmall);
                yield from $pool->out();
            }
            while ($pool->running !== []) {
                $pool->look(self::POLL_MICROSECONDS);
                yield from $pool->out();
            }
        } finally {
            $pool->stop();
        }
    }

    /**
     * @template F of array-key
     *
     * @param  iterable<F, array{string, int, string}>  $files
     * @return \Generator<int, array{array<F, array{string, int, string}>, int, bool}> files, their bytes in all, and
     *   whether all are small
     */
    private static function batches(iterable $files): \Generator
    {
        $open = [[[], 0], [[], 0]];
        foreach ($files as $key => $file) {
            $bytes = $file[1];
            $sort = $bytes <= self::SMALL_BYTES ? 1 : 0;
            $open[$sort][0][$key] = $file;
            $open[$sort][1] += $bytes;
            if (
                count($open[$sort][0]) >= self::SMALL_FILES
                || $open[$sort][1] >= ($sort === 1 ? self::SMALL_BATCH_BYTES : self::BATCH_BYTES)
            ) {
                yield [$open[$sort][0], $open[$sort][1], $sort === 1];
                $open[$sort] = [[], 0];
            }
        }
        foreach ($open as $sort => [$left, $bytes]) {
            if ($left !== []) {
                yield [$left, $bytes, $sort === 1];
            }
        }
    }

    /** @param  array<K, array{string, int, string}>  $batch */
    private function take(array $batch, int $bytes, bool $isSmall): void
    {
        if ($isSmall && count($this->running) >= self::cores()) {
            foreach (array_keys($batch) as $at => $key) {
                $digest = $this->small($batch[$key][0]);
                if ($digest !== $batch[$key][2]) {
                    $this->others[$key] = $digest;
                }
                if ($at % self::SMALL_AT_ONCE === 0) {
                    $this->look(0);
                }
            }

            return;
        }
        while (count($this->running) >= self::cores()) {
            $this->look(self::POLL_MICROSECONDS);
        }
        $this->start($batch, $bytes);
    }

    /** @param  array<K, array{string, int, string}>  $batch */
    private function start(array $batch, int $bytes): void
    {
        $out = tmpfile();
        $process =
            $out === false
                ? false
                : @proc_open(
                    ['openssl', 'dgst', "-{$this->algorithm}", '-r', ...array_column($batch, 0)],
                    [['file', '/dev/null', 'r'], $out, ['file', '/dev/null', 'w']],
                    $pipes,
                    null,
                    Program::environment(),
                );
        if ($out === false || ! is_resource($process)) {
            foreach ($batch as $key => [$file, , $said]) {
                $digest = Digest::ofFile($file, $this->read, $this->algorithm);
                if ($digest !== $said) {
                    $this->others[$key] = $digest;
                }
            }

            return;
        }
        $this->running[] = [
            'process' => $process,
            'out' => $out,
            'batch' => $batch,
            'bytes' => $bytes,
            'told' => 0,
        ];
    }

    private function small(string $file): ?string
    {
        $text = @file_get_contents($file);
        $digest = $text === false ? false : openssl_digest($text, $this->algorithm);
        if ($text !== false && $this->read !== null) {
            ($this->read)(strlen($text));
        }

        return $digest === false ? null : $digest;
    }

    private function look(int $microseconds): void
    {
        if ($microseconds > 0) {
            usleep($microseconds);
        }
        foreach ($this->running as $i => &$run) {
            $status = proc_get_status($run['process']);
            $over = ! $status['running'];
            if ($this->read !== null) {
                $so = $over ? $run['bytes'] : min($run['bytes'], self::bytesRead($status['pid']));
                ($this->read)(max(0, $so - $run['told']));
                $run['told'] = max($run['told'], $so);
            }
            if ($over) {
                $this->others += self::othersIn($run['out'], $run['batch']);
                proc_close($run['process']);
                unset($this->running[$i]);
            }
        }
    }

    /**
     * @param  resource  $out
     * @param  array<K, array{string, int, string}>  $batch
     * @return array<K, string|null> null of those of which the program printed nothing
     */
    private static function othersIn($out, array $batch): array
    {
        rewind($out);
        $text = (string) stream_get_contents($out);
        fclose($out);
        $said = '';
        foreach ($batch as [$file, , $digest]) {
            $said .= "{$digest} *{$file}\n";
        }
        if ($text === $said) {
            return [];
        }
        $byFile = [];
        foreach (explode("\n", $text) as $line) {
            [$digest, $file] = explode(' *', $line, 2) + ['', ''];
            $byFile[$file] = $digest;
        }
        $others = [];
        foreach ($batch as $key => [$file, , $digest]) {
            $found = $byFile[$file] ?? null;
            if ($found !== $digest) {
                $others[$key] = $found;
            }
        }

        return $others;
    }

    /** @return \Generator<K, string|null> */
    private function out(): \Generator
    {
        [$others, $this->others] = [$this->others, []];
        yield from $others;
    }

    private function stop(): void
    {
        foreach ($this->running as $run) {
            proc_terminate($run['process'], 9);
            proc_close($run['process']);
            fclose($run['out']);
        }
    }

    private static function bytesRead(int $pid): int
    {
        return preg_match('/^rchar: (\d+)/m', (string) @file_get_contents("/proc/{$pid}/io"), $m) === 1
            ? (int) $m[1]
            : 0;
    }

    private static function cores(): int
    {
        /** @var int|null $cores */
        static $cores = null;

        return $cores ??= max(
            1,
            min(8, (int) preg_match_all('/^processor\s*:/m', (string) @file_get_contents('/proc/cpuinfo'))),
        );
    }
}
