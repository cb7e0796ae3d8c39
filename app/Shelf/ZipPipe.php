<?php

declare(strict_types=1);

namespace App\Shelf;

/** Turns a tar that is written into it into a ZIP that flows out, by bsdtar; neither lies on the disk. */
final class ZipPipe
{
    private const CHUNK = 262_144;

    /** @var resource */
    private $process;

    /** @var array{0: resource, 1: resource} */
    private array $pipes;

    /** @param  callable(string): void  $out */
    public function __construct(private $out)
    {
        $process = proc_open(['bsdtar', '-cf', '-', '--format', 'zip', '@-'], [['pipe', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']], $pipes);
        $this->process = is_resource($process) ? $process : throw new \RuntimeException('bsdtar could not be started.');
        $this->pipes = [$pipes[0], $pipes[1]];
        stream_set_blocking($pipes[0], false);
        stream_set_blocking($pipes[1], false);
    }

    /** Writes all of it, and meanwhile passes on what comes out, so that neither side waits for the other. */
    public function write(string $text): void
    {
        while ($text !== '') {
            [$read, $write, $none] = [[$this->pipes[1]], [$this->pipes[0]], null];
            stream_select($read, $write, $none, 30);
            $this->passOn();
            if (count($write) > 0) {
                $wrote = fwrite($this->pipes[0], substr($text, 0, self::CHUNK));
                $wrote !== false || throw new \RuntimeException('bsdtar has ended early.');
                $text = substr($text, $wrote);
            }
        }
    }

    public function end(): void
    {
        fclose($this->pipes[0]);
        stream_set_blocking($this->pipes[1], true);
        while (! feof($this->pipes[1])) {
            $this->passOn();
        }
        fclose($this->pipes[1]);
        proc_close($this->process);
    }

    private function passOn(): void
    {
        $text = (string) fread($this->pipes[1], self::CHUNK);
        $text === '' ?: ($this->out)($text);
    }
}
