<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\PayloadPath;

/** Reads a POSIX tar (ustar, pax) from a stream, entry by entry; anything but files and folders is refused. */
final class TarReader
{
    private const BLOCK = 512;

    private const MOST_PAX = 65_536;

    /** @param  resource  $in */
    public function __construct(private $in, private readonly string $name)
    {
    }

    /**
     * Calls back for each file, in order, with its path, its size, and a reader of its bytes: called with a number it
     * gives at most so many, and an empty text at the end. What is not read is passed over.
     *
     * @param  callable(string, int, callable(int): string): void  $entry
     *
     * @throws Unopened
     */
    public function each(callable $entry): void
    {
        $pax = [];
        while (($head = $this->exactly(self::BLOCK, true)) !== '' && trim($head, "\0") !== '') {
            $this->assertSum($head);
            $size = isset($pax['size']) ? (int) $pax['size'] : (int) octdec(trim(substr($head, 124, 12), "\0 "));
            $type = $head[156];
            if ($type === 'x' || $type === 'g') {
                $size <= self::MOST_PAX || throw Unopened::damaged($this->name, 'a header of its tar is too large');
                $pax = $type === 'x' ? self::records($this->exactly($size)) : $pax;
                $this->pad($size);

                continue;
            }
            $this->file($type, $pax['path'] ?? self::path($head), $size, $entry);
            $pax = [];
        }
        stream_get_contents($this->in);
    }

    /** @param  callable(string, int, callable(int): string): void  $entry */
    private function file(string $type, string $path, int $size, callable $entry): void
    {
        $left = $size;
        $read = function (int $most) use (&$left): string {
            $text = $left === 0 ? '' : (string) fread($this->in, max(1, min($most, $left)));
            $left > 0
                && $text === ''
                && feof($this->in)
                && throw Unopened::damaged($this->name, 'its tar is cut short');
            $left -= strlen($text);

            return $text;
        };
        if ($type === '0' || $type === "\0") {
            $entry(PayloadPath::parse($path)->path, $size, $read);
        } elseif ($type !== '5') {
            throw Unopened::damaged($this->name, 'its tar holds something that is neither file nor folder');
        }
        while ($left > 0) {
            $read(262_144);
        }
        $this->pad($size);
    }

    private function exactly(int $bytes, bool $mayBeEnd = false): string
    {
        $text = '';
        while (strlen($text) < $bytes && ! feof($this->in)) {
            $text .= (string) fread($this->in, max(1, $bytes - strlen($text)));
        }

        return strlen($text) === $bytes || ($mayBeEnd && $text === '')
            ? $text
            : throw Unopened::damaged($this->name, 'its tar is cut short');
    }

    private function pad(int $size): void
    {
        $over = (self::BLOCK - $size % self::BLOCK) % self::BLOCK;
        if ($over !== 0) {
            $this->exactly($over);
        }
    }

    private function assertSum(string $head): void
    {
        $blank = substr($head, 0, 148).'        '.substr($head, 156);
        if (TarSum::of($blank) !== (int) octdec(trim(substr($head, 148, 8), "\0 "))) {
            throw Unopened::damaged($this->name, 'a header of its tar is damaged');
        }
    }

    private static function path(string $head): string
    {
        $name = rtrim(substr($head, 0, 100), "\0");
        $prefix = substr($head, 257, 5) === 'ustar' ? rtrim(substr($head, 345, 155), "\0") : '';

        return $prefix === '' ? $name : "{$prefix}/{$name}";
    }

    /** @return array<string, string> */
    private static function records(string $text): array
    {
        $found = [];
        while (
            preg_match('/\A(\d+) ([^=]+)=/', $text, $m) === 1
            && (int) $m[1] > strlen($m[0])
            && (int) $m[1] <= strlen($text)
        ) {
            $found[$m[2]] = substr($text, strlen($m[0]), (int) $m[1] - strlen($m[0]) - 1);
            $text = substr($text, (int) $m[1]);
        }

        return $found;
    }
}
