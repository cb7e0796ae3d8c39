<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\UnsafePath;
use JadeStep\Core\Bag\Exception\UntrustedArchive;
use JadeStep\Core\Bag\Exception\WriteFailed;
use JadeStep\Core\Bag\Internal\PathTable;
use JadeStep\Core\Bag\Internal\Tree;

/**
 * Unpacks a ZIP that carries one bag as its one top folder. Everything is looked at before the first byte is written.
 */
final readonly class ZipBag
{
    private const CHUNK = 262_144;

    private const LINK = 0o120000;

    private function __construct(private \ZipArchive $zip, private ImportLimits $limits, private int $packed)
    {
    }

    /**
     * @param  string  $into  a folder that must not be there yet
     * @param  (callable(int): void)|null  $progress  told the bytes written since the last call
     * @return string the bag's folder below it
     *
     * @throws UntrustedArchive naming what is wrong; then nothing is left of it
     */
    public static function unpack(string $file, string $into, ImportLimits $limits, ?callable $progress = null): string
    {
        $zip = new \ZipArchive;
        // not the library's own strictness, which refuses archives that were streamed; every entry is compared when
        // it is read
        if ($zip->open($file, \ZipArchive::RDONLY) !== true) {
            throw UntrustedArchive::unreadable();
        }
        if (file_exists($into)) {
            throw WriteFailed::at(basename($into), 'a folder of this name is there already');
        }
        try {
            return (new self($zip, $limits, (int) filesize($file)))->write($into, $progress);
        } catch (\Throwable $e) {
            Tree::remove($into);

            throw $e;
        } finally {
            $zip->close();
        }
    }

    private function write(string $into, ?callable $progress): string
    {
        [$files, $top] = $this->files();
        foreach ($files->all() as $path => $word) {
            [$index, $bytes] = array_map(intval(...), explode(' ', (string) $word)) + [0, 0];
            Tree::makeFolder(dirname("{$into}/{$path}"));
            $this->one($index, $bytes, $path, "{$into}/{$path}", $progress);
        }

        return "{$into}/{$top}";
    }

    /** @return array{PathTable, string} their numbers and bytes, by path, when every entry may be written; their top */
    private function files(): array
    {
        $this->zip->numFiles <= $this->limits->entries
            || throw UntrustedArchive::tooMany($this->zip->numFiles, $this->limits->entries);
        $files = new PathTable;
        [$bytes, $top] = [0, null];
        for ($i = 0; $i < $this->zip->numFiles; $i++) {
            $stat = $this->zip->statIndex($i, \ZipArchive::FL_ENC_RAW);
            $stat !== false || throw UntrustedArchive::unreadable();
            $this->assertPlain($i, $stat);
            if (str_ends_with($stat['name'], '/')) {
                $this->path(rtrim($stat['name'], '/'));

                continue;
            }
            $path = $this->path($stat['name']);
            $files->put($path, "{$i} {$stat['size']}") || throw UntrustedArchive::twice($path);
            $bytes += $stat['size'];
            $in = str_contains($path, '/') ? explode('/', $path)[0] : '';
            $top = $top === null || $top === $in ? $in : '';
        }
        $folder = '';
        foreach ($files->all() as $path => $word) {
            for ($in = dirname($path); $in !== '.' && $in !== $folder; $in = dirname($in)) {
                $files->has($in) && throw UntrustedArchive::twice($in);
            }
            $folder = dirname($path);
        }
        $this->assertSize($bytes);

        return $top === null || $top === '' ? throw UntrustedArchive::notOneFolder() : [$files, $top];
    }

    /** @param  array{name: string, encryption_method?: int}  $stat */
    private function assertPlain(int $index, array $stat): void
    {
        ($stat['encryption_method'] ?? \ZipArchive::EM_NONE) === \ZipArchive::EM_NONE
            || throw UntrustedArchive::encrypted($stat['name']);
        if (
            $this->zip->getExternalAttributesIndex($index, $system, $attributes)
            && $system === \ZipArchive::OPSYS_UNIX
        ) {
            $type = ($attributes >> 16) & 0o170000;
            $type === self::LINK && throw UntrustedArchive::link($stat['name']);
            in_array($type, [0, 0o100000, 0o040000], true) || throw UntrustedArchive::special($stat['name']);
        }
    }

    private function path(string $name): string
    {
        try {
            return PayloadPath::parse($name)->path;
        } catch (UnsafePath $e) {
            throw UntrustedArchive::path($e->getMessage());
        }
    }

    private function assertSize(int $bytes): void
    {
        $bytes <= $this->limits->bytes || throw UntrustedArchive::tooLarge($bytes, $this->limits->bytes);
        $bytes <= max(1_000_000, $this->packed * $this->limits->ratio)
            || throw UntrustedArchive::bomb($this->limits->ratio);
    }

    /** What an entry says of its size is not believed: more bytes than it says stop it. */
    private function one(int $index, int $bytes, string $path, string $file, ?callable $progress): void
    {
        $in = $this->zip->getStreamIndex($index);
        $out = @fopen($file, 'xb');
        $in !== false || throw UntrustedArchive::entry($path);
        $out !== false || throw WriteFailed::at($path);
        $done = 0;
        while (! feof($in)) {
            $text = @fread($in, self::CHUNK);
            $text !== false || throw UntrustedArchive::entry($path);
            $done += strlen($text);
            $done <= $bytes || throw UntrustedArchive::entry($path);
            @fwrite($out, $text) === strlen($text) || throw WriteFailed::at($path);
            if ($progress !== null) {
                $progress(strlen($text));
            }
        }
        fclose($out);
        fclose($in);
        $done === $bytes || throw UntrustedArchive::entry($path);
        $stat = $this->zip->statIndex($index);
        ($stat !== false && hash_file('crc32b', $file) === sprintf('%08x', $stat['crc']))
            || throw UntrustedArchive::entry($path);
    }
}
