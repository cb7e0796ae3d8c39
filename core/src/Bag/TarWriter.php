<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\SourceStalled;
use JadeStep\Core\Bag\Exception\WriteFailed;
use JadeStep\Core\Bag\Internal\Source;
use JadeStep\Core\Bag\Internal\TarSum;

/** Writes a POSIX tar (IEEE Std 1003.1, ustar; pax headers for what ustar cannot hold) to a stream. */
final class TarWriter
{
    private const BLOCK = 512;

    private const CHUNK = 262_144;

    private const MOST_OCTAL = 0o77777777777;

    /** @param  callable(string): void  $out  takes all of what it is given */
    public function __construct(private $out)
    {
    }

    /** @param  resource  $stream */
    public static function to($stream): self
    {
        return new self(static function (string $text) use ($stream): void {
            for ($done = 0, $all = strlen($text); $done < $all; $done += $wrote) {
                $wrote = @fwrite($stream, $done === 0 ? $text : substr($text, $done));
                if ($wrote === false || $wrote === 0) {
                    throw WriteFailed::at('an encrypted segment');
                }
            }
        });
    }

    /**
     * @param  resource  $content
     * @param  int  $bytes  how many the entry has: more than that are not read, fewer are filled up with zeros
     * @param  (callable(string): void)|null  $seen  shown the content piece by piece, an empty one while nothing comes
     * @return int how many bytes the content really had, at most one more than announced
     */
    public function add(string $path, int $bytes, int $modifiedAt, $content, ?callable $seen = null): int
    {
        $this->header($path, $bytes, $modifiedAt);
        $left = $bytes;
        $empty = 0;
        while ($left > 0 && ! feof($content)) {
            $text = (string) fread($content, max(1, min(self::CHUNK, $left)));
            $empty = $text === '' ? $empty + 1 : 0;
            $empty <= Source::PATIENCE || throw SourceStalled::at($path);
            if ($seen !== null) {
                $seen($text);
            }
            $this->put($text);
            $left -= strlen($text);
        }
        for ($missing = $left; $missing > 0; $missing -= self::CHUNK) {
            $this->put(str_repeat("\0", min(self::CHUNK, $missing)));
        }
        $this->put(str_repeat("\0", (self::BLOCK - $bytes % self::BLOCK) % self::BLOCK));
        $more = $left === 0 ? strlen((string) fread($content, 1)) : 0;

        return $bytes - $left + $more;
    }

    /** @param  callable(int): string  $read  gives at most so many bytes, and an empty text at the end */
    public function addPieces(string $path, int $bytes, int $modifiedAt, callable $read): void
    {
        $this->header($path, $bytes, $modifiedAt);
        $left = $bytes;
        while ($left > 0 && ($text = $read(min(self::CHUNK, $left))) !== '') {
            $this->put($text);
            $left -= strlen($text);
        }
        $left === 0 || throw WriteFailed::at($path, 'it is shorter than its inventory says');
        $this->put(str_repeat("\0", (self::BLOCK - $bytes % self::BLOCK) % self::BLOCK));
    }

    public function addText(string $path, string $text, int $modifiedAt): void
    {
        $this->header($path, strlen($text), $modifiedAt);
        $this->put($text.str_repeat("\0", (self::BLOCK - strlen($text) % self::BLOCK) % self::BLOCK));
    }

    public function end(): void
    {
        $this->put(str_repeat("\0", 2 * self::BLOCK));
    }

    private function header(string $path, int $bytes, int $modifiedAt): void
    {
        [$prefix, $name] = self::split($path);
        if ($name === null || preg_match('/[^\x20-\x7E]/', $path) === 1 || $bytes > self::MOST_OCTAL) {
            $pax = self::record('path', $path).self::record('size', (string) $bytes);
            $this->put(
                self::block('PaxHeader', '', strlen($pax), $modifiedAt, 'x')
                    .$pax
                    .str_repeat("\0", (self::BLOCK - (strlen($pax) % self::BLOCK)) % self::BLOCK),
            );
            [$prefix, $name] = ['', 'item-'.substr(hash('sha256', $path), 0, 16)];
        }
        $this->put(self::block($name, $prefix, min($bytes, self::MOST_OCTAL), $modifiedAt, '0'));
    }

    /** @return array{string, string|null} prefix and name, the name null where ustar cannot hold the path */
    private static function split(string $path): array
    {
        if (strlen($path) <= 100) {
            return ['', $path];
        }
        // the first slash of which no more than a name follows
        $at = strpos($path, '/', strlen($path) - 101);

        return $at === false || $at > 155
            ? ['', null]
            : [substr($path, 0, $at), substr($path, $at + 1)];
    }

    private static function block(string $name, string $prefix, int $bytes, int $modifiedAt, string $type): string
    {
        $fields = static fn (string $sum): string => str_pad(
            pack('a100', $name)
                .sprintf("%07o\0%07o\0%07o\0%011o\0%011o\0", 0o644, 0, 0, $bytes, max(0, $modifiedAt))
                .$sum
                .$type
                .pack('a100', '')
                ."ustar\x0000"
                .pack('a32a32', 'root', 'root')
                .sprintf("%07o\0%07o\0", 0, 0)
                .pack('a155', $prefix),
            self::BLOCK,
            "\0",
        );

        return $fields(sprintf("%06o\0 ", TarSum::of($fields('        '))));
    }

    /** A pax record says its own length, which counts its digits too. */
    private static function record(string $key, string $value): string
    {
        $rest = strlen(" {$key}={$value}\n");
        $length = $rest + strlen((string) $rest);
        $length = $rest + strlen((string) $length);

        return "{$length} {$key}={$value}\n";
    }

    private function put(string $text): void
    {
        if ($text !== '') {
            ($this->out)($text);
        }
    }
}
