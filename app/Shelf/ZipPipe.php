<?php

declare(strict_types=1);

namespace App\Shelf;

/** Turns a tar that is written into it into a ZIP that flows out, by bsdtar; neither lies on the disk. */
final class ZipPipe
{
    private const CHUNK = 262_144;

    /** @var resource */
    private $process;

    /** @var resource */
    private $in;

    /** @var resource what comes out of the program */
    private $back;

    /** @param  callable(string): void  $out */
    public function __construct(private $out)
    {
        $process = proc_open(
            ['bsdtar', '-cf', '-', '--format', 'zip', '@-'],
            [['pipe', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
        );
        $this->process = is_resource($process) ? $process : throw new \RuntimeException('bsdtar could not be started.');
        $this->in = $pipes[0];
        $this->back = $pipes[1];
        stream_set_blocking($pipes[0], false);
        stream_set_blocking($pipes[1], false);
    }

    /** Writes all of it, and meanwhile passes on what comes out, so that neither side waits for the other. */
    public function write(string $text): void
    {
        while ($text !== '') {
            [$read, $write, $none] = [[$this->back], [$this->in], null];
            stream_select($read, $write, $none, 30);
            $this->passOn();
            if (count($write) > 0) {
                $wrote = fwrite($this->in, substr($text, 0, self::CHUNK));
                $wrote !== false || throw new \RuntimeException('bsdtar has ended early.');
                $text = substr($text, $wrote);
            }
        }
    }

    public function end(): void
    {
        fclose($this->in);
        stream_set_blocking($this->back, true);
        while (! feof($this->back)) {
            $this->passOn();
        }
        fclose($this->back);
        proc_close($this->process);
    }

    private function passOn(): void
    {
        $text = (string) fread($this->back, self::CHUNK);
        if ($text !== '') {
            ($this->out)($text);
        }
    }
}
