<?php

declare(strict_types=1);

namespace Tests\Steps;

/** A stream that gives nothing for some seconds before it gives its bytes, as a device does that looks for them. */
final class SlowStream
{
    private const SCHEME = 'slow';

    private const EMPTY_PIECES = 5;

    private const PIECE_MICROSECONDS = 450_000;

    /** @var (\Closure(): void)|null called while nothing comes */
    private static ?\Closure $meanwhile = null;

    /** @var resource|null set by PHP */
    public $context;

    private string $bytes = '';

    private int $pieces = 0;

    /** @param  \Closure(): void  $meanwhile */
    public static function register(\Closure $meanwhile): void
    {
        self::$meanwhile = $meanwhile;
        in_array(self::SCHEME, stream_get_wrappers(), true) || stream_wrapper_register(self::SCHEME, self::class);
    }

    /** @return resource */
    public static function of(string $bytes)
    {
        return self::opened(self::SCHEME.'://'.base64_encode($bytes));
    }

    /** @return resource */
    public static function atOnce(string $bytes)
    {
        return self::opened('data:;base64,'.base64_encode($bytes));
    }

    /** @return resource */
    private static function opened(string $address)
    {
        $stream = fopen($address, 'rb');

        return $stream === false ? throw new \RuntimeException('The stream cannot be opened.') : $stream;
    }

    public function stream_open(string $path): bool
    {
        $this->bytes = (string) base64_decode(substr($path, strlen(self::SCHEME.'://')), true);

        return true;
    }

    public function stream_read(int $count): string
    {
        if ($this->pieces++ < self::EMPTY_PIECES) {
            usleep(self::PIECE_MICROSECONDS);
            self::$meanwhile === null || (self::$meanwhile)();

            return '';
        }
        [$given, $this->bytes] = [substr($this->bytes, 0, $count), substr($this->bytes, $count)];

        return $given;
    }

    public function stream_eof(): bool
    {
        return $this->pieces > self::EMPTY_PIECES && $this->bytes === '';
    }
}
