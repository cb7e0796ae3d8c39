<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Digest;

/**
 * Takes digests of many files: of large ones with the openssl program, one process a core, and of small ones here
 * meanwhile, since a process costs more than they do. How far a process is, is read off its own counters where the
 * system shows them.
 */
final class DigestPool
{
    private const BATCH_FILES = 400;

    private const BATCH_BYTES = 67_108_864;

    /** Up to so large a file is read at once, here. */
    private const SMALL_BYTES = 1_048_576;

    /** So many are read here between two looks at the processes. */
    private const SMALL_AT_ONCE = 64;

    private const POLL_MICROSECONDS = 20_000;

    /**
     * @var array<int, array{process: resource, out: resource, files: list<string>, pid: int, bytes: int, told: int}>
     */
    private array $running = [];

    /** @var array<string, string|null> */
    private array $digests = [];

    /** @param  (callable(int): void)|null  $read */
    private function __construct(private $read, private readonly string $algorithm)
    {
    }

    /**
     * @param  list<string>  $files
     * @param  (callable(int): void)|null  $read
     * @return array<string, string|null>
     */
    public static function run(array $files, ?callable $read, string $algorithm): array
    {
        $pool = new self($read, $algorithm);
        [$small, $large] = self::bySize($files);
        $batches = self::batches($large);
        try {
            for ($next = 0; isset($small[$next]) || $batches !== [] || $pool->running !== [];) {
                while ($batches !== [] && count($pool->running) < self::cores()) {
                    $pool->start(array_shift($batches));
                }
                for ($end = $next + self::SMALL_AT_ONCE; $next < $end && isset($small[$next]); $next++) {
                    $pool->digests[$small[$next]] = $pool->small($small[$next]);
                }
                if ($pool->running !== []) {
                    $pool->look(isset($small[$next]) ? 0 : self::POLL_MICROSECONDS);
                }
            }
        } finally {
            $pool->stop();
        }

        return $pool->digests;
    }

    /** @param  array{files: list<string>, bytes: int}  $batch */
    private function start(array $batch): void
    {
        $this->digests += array_fill_keys($batch['files'], null);
        $out = tmpfile();
        $process =
            $out === false
                ? false
                : @proc_open(
                    ['openssl', 'dgst', "-{$this->algorithm}", '-r', ...$batch['files']],
                    [['file', '/dev/null', 'r'], $out, ['file', '/dev/null', 'w']],
                    $pipes,
                    null,
                    ['LC_ALL' => 'C', 'PATH' => (string) getenv('PATH')],
                );
        if ($out === false || ! is_resource($process)) {
            foreach ($batch['files'] as $file) {
                $this->digests[$file] = Digest::ofFile($file, $this->read, $this->algorithm);
            }

            return;
        }
        $this->running[] = [
            'process' => $process,
            'out' => $out,
            'files' => $batch['files'],
            'pid' => proc_get_status($process)['pid'],
            'bytes' => $batch['bytes'],
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

    /**
     * @param  list<string>  $files
     * @return array{list<string>, array<string, int>} the small ones, and the large ones with their bytes
     */
    private static function bySize(array $files): array
    {
        $small = [];
        $large = [];
        foreach ($files as $file) {
            $bytes = (int) @filesize($file);
            if ($bytes <= self::SMALL_BYTES) {
                $small[] = $file;
            } else {
                $large[$file] = $bytes;
            }
        }

        return [$small, $large];
    }

    private function look(int $microseconds): void
    {
        usleep($microseconds);
        foreach ($this->running as $i => &$run) {
            $over = ! proc_get_status($run['process'])['running'];
            $so = $over ? $run['bytes'] : min($run['bytes'], self::bytesRead($run['pid']));
            if ($this->read !== null) {
                ($this->read)(max(0, $so - $run['told']));
            }
            $run['told'] = max($run['told'], $so);
            if ($over) {
                $this->take($run['out'], $run['process']);
                unset($this->running[$i]);
            }
        }
    }

    /**
     * @param  resource  $out
     * @param  resource  $process
     */
    private function take($out, $process): void
    {
        rewind($out);
        while (($line = fgets($out)) !== false) {
            if (preg_match('/\A([0-9a-f]+) \*(.+)\n\z/', $line, $m) === 1) {
                $this->digests[$m[2]] = $m[1];
            }
        }
        fclose($out);
        proc_close($process);
    }

    private function stop(): void
    {
        foreach ($this->running as $run) {
            proc_terminate($run['process'], 9);
            proc_close($run['process']);
            fclose($run['out']);
        }
    }

    /**
     * Large files first, one a batch; small ones together.
     *
     * @param  array<string, int>  $sizes  in bytes
     * @return list<array{files: list<string>, bytes: int}>
     */
    private static function batches(array $sizes): array
    {
        arsort($sizes);
        $batches = [];
        $open = ['files' => [], 'bytes' => 0];
        foreach ($sizes as $file => $bytes) {
            if (
                $open['files'] !== []
                && ($open['bytes'] + $bytes > self::BATCH_BYTES || count($open['files']) >= self::BATCH_FILES)
            ) {
                $batches[] = $open;
                $open = ['files' => [], 'bytes' => 0];
            }
            $open['files'][] = (string) $file;
            $open['bytes'] += $bytes;
        }

        return $open['files'] === [] ? $batches : [...$batches, $open];
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
