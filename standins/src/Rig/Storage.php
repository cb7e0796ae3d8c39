<?php

declare(strict_types=1);

namespace Standins\Rig;

use Standins\Http\Problem;

/** The files on a device: one folder a kind. */
final readonly class Storage
{
    public function __construct(public string $folder)
    {
    }

    /** @return array<string, array{items: int, bytes: int, lastChangedAt: ?int}> by kind */
    public function stock(): array
    {
        $stock = [];
        foreach ($this->kinds() as $kind) {
            $stock[$kind] = ['items' => 0, 'bytes' => 0, 'lastChangedAt' => null];
            foreach ($this->files($kind) as $file) {
                $stock[$kind]['items']++;
                $stock[$kind]['bytes'] += $file->getSize();
                $stock[$kind]['lastChangedAt'] = max($stock[$kind]['lastChangedAt'] ?? 0, $file->getMTime());
            }
        }

        return $stock;
    }

    /** @return list<string> */
    public function kinds(): array
    {
        $kinds = is_dir($this->folder) ? array_diff(scandir($this->folder) ?: [], ['.', '..']) : [];
        sort($kinds);

        return $kinds;
    }

    /** @return array<string, \SplFileInfo> by path within the kind, in order */
    public function files(string $kind): array
    {
        $root = "{$this->folder}/{$kind}";
        $found = [];
        if (is_dir($root)) {
            $entries = new \RecursiveDirectoryIterator($root, \FilesystemIterator::SKIP_DOTS);
            foreach (new \RecursiveIteratorIterator($entries) as $file) {
                $found[substr($file->getPathname(), strlen($root) + 1)] = $file;
            }
        }
        ksort($found, SORT_STRING);

        return $found;
    }

    public function path(string $kind, string $path): string
    {
        if (
            preg_match('/\A[a-z][a-z-]*\z/', $kind) !== 1
            || $path === ''
            || preg_match('#(\A|/)\.{0,2}(/|\z)#', $path) === 1
            || preg_match('/[\x00-\x1F\\\\]/', $path) === 1
        ) {
            throw new Problem(400, 'unsafe-path', 'This path does not name an item.');
        }

        return "{$this->folder}/{$kind}/{$path}";
    }

    public function write(string $kind, string $path, string $content, int $modifiedAt): void
    {
        $file = $this->path($kind, $path);
        is_dir(dirname($file)) || mkdir(dirname($file), 0o755, true);
        file_put_contents("{$file}.part~", $content);
        rename("{$file}.part~", $file);
        touch($file, $modifiedAt);
    }

    public function drop(string $kind): void
    {
        self::remove("{$this->folder}/{$kind}");
    }

    /** Puts another storage's kind in the place of this one's. */
    public function take(self $other, string $kind): void
    {
        $this->drop($kind);
        is_dir($this->folder) || mkdir($this->folder, 0o755, true);
        is_dir("{$other->folder}/{$kind}") && rename("{$other->folder}/{$kind}", "{$this->folder}/{$kind}");
    }

    public function copyFrom(self $other, string $kind): void
    {
        foreach ($other->files($kind) as $path => $file) {
            $this->write($kind, (string) $path, (string) file_get_contents($file->getPathname()), $file->getMTime());
        }
    }

    public static function remove(string $folder): void
    {
        if (! is_dir($folder)) {
            return;
        }
        foreach (new \FilesystemIterator($folder) as $entry) {
            $entry->isDir() && ! $entry->isLink() ? self::remove($entry->getPathname()) : unlink($entry->getPathname());
        }
        rmdir($folder);
    }
}
