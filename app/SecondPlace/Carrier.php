<?php

declare(strict_types=1);

namespace App\SecondPlace;

use App\Ports\OtherPlaces;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Fingerprint;
use JadeStep\Core\Bag\ListedFiles;
use League\Flysystem\FileAttributes;
use League\Flysystem\FilesystemException;
use League\Flysystem\FilesystemOperator;

/**
 * Carries one bag to the second place or back. What an earlier run has carried whole stays; nothing counts as there
 * before every byte was read back, and a copy bears the bag's name only then.
 */
final class Carrier
{
    private const CHUNK = 1_048_576;

    private function __construct(
        private readonly FilesystemOperator $there,
        private readonly Place $place,
        private readonly \Closure $tell,
    ) {
    }

    /**
     * @param  \Closure(int): void  $tell  told the bytes since the last call
     *
     * @throws PlaceFails
     */
    public static function at(OtherPlaces $places, Place $place, \Closure $tell): self
    {
        $carrier = new self($places->open($place->address()), $place, $tell);
        $carrier->assertMarked();

        return $carrier;
    }

    /**
     * @param  string  $folder  of the bag here
     * @return string the digest of the whole bag, as it was read back there
     *
     * @throws PlaceFails|NotABag
     */
    public function carry(string $id, string $folder, int $bytes): string
    {
        return $this->asking("{$id} be carried there", function () use ($id, $folder, $bytes): string {
            if (! $this->there->directoryExists($id)) {
                $part = "{$id}.part";
                $resumed = $this->there->directoryExists($part);
                if (! $resumed) {
                    $this->assertRoom($bytes);
                }
                foreach (ListedFiles::of($folder) as $path => $digest) {
                    $this->put("{$folder}/{$path}", "{$part}/{$path}", $resumed);
                }
                $this->readBack($part, $folder);
                $this->there->move($part, $id);
            } else {
                $this->readBack($id, $folder);
            }

            return Fingerprint::of($folder);
        });
    }

    /** @return bool whether a copy is there with these very lists, and as many files and bytes as they say */
    public function has(string $id, string $folder): bool
    {
        return $this->asking("{$id} be looked at", function () use ($id, $folder): bool {
            [$files, $bytes] = [0, 0];
            foreach (ListedFiles::of($folder) as $path => $digest) {
                $isList = preg_match('/\A(tag)?manifest-[a-z0-9]+\.txt\z/', $path) === 1;
                if ($isList && ! ($this->there->fileExists("{$id}/{$path}")
                    && hash_equals($digest, $this->digest("{$id}/{$path}")))) {
                    return false;
                }
                $files++;
                $bytes += (int) @filesize("{$folder}/{$path}");
            }
            foreach ($this->there->listContents($id, FilesystemOperator::LIST_DEEP) as $entry) {
                $files -= $entry->isFile() ? 1 : 0;
                $bytes -= $entry instanceof FileAttributes ? (int) $entry->fileSize() : 0;
            }

            return [$files, $bytes] === [0, 0];
        });
    }

    /** Brings the whole copy into a folder of this machine, which is not there yet or has what was brought before. */
    public function bring(string $id, string $into): void
    {
        $this->asking("{$id} be fetched", function () use ($id, $into): string {
            $this->there->directoryExists($id) || throw PlaceFails::lacks($id, $this->place->words());
            foreach ($this->there->listContents($id, FilesystemOperator::LIST_DEEP) as $entry) {
                $path = substr($entry->path(), strlen($id) + 1);
                if ($entry->isFile() && self::isPlain($path)) {
                    $this->get($entry->path(), "{$into}/{$path}");
                }
            }

            return '';
        });
    }

    public function remove(string $id): void
    {
        $this->asking("{$id} be deleted", function () use ($id): string {
            foreach ([$id, "{$id}.part"] as $folder) {
                $this->there->deleteDirectory($folder);
            }

            return '';
        });
    }

    /**
     * @template T
     *
     * @param  \Closure(): T  $do
     * @return T
     */
    private function asking(string $doing, \Closure $do): mixed
    {
        try {
            return $do();
        } catch (FilesystemException $e) {
            throw PlaceFails::fails($this->place->words(), $doing, $e);
        }
    }

    private function assertMarked(): void
    {
        $this->asking('its mark be read', function (): bool {
            $marked = $this->there->fileExists(Place::MARK)
                && hash_equals($this->place->mark, trim($this->there->read(Place::MARK)));

            return $marked ? true : throw PlaceFails::notMarked($this->place->words());
        });
    }

    private function assertRoom(int $bytes): void
    {
        $free = $this->place->isServer() ? false : @disk_free_space($this->place->folder);
        $free === false || $free > $bytes || throw PlaceFails::full($this->place->words(), (int) $free, $bytes);
    }

    private function put(string $file, string $path, bool $resumed): void
    {
        $bytes = @filesize($file);
        $bytes !== false || throw PlaceFails::sourceIsNotSound(basename($file));
        if (! $resumed || ! $this->there->fileExists($path) || $this->there->fileSize($path) !== $bytes) {
            $in = @fopen($file, 'rb');
            $in !== false || throw PlaceFails::sourceIsNotSound(basename($file));
            try {
                $this->there->writeStream($path, $in);
            } finally {
                if (is_resource($in)) { // who wrote it may have closed it
                    fclose($in);
                }
            }
        }
        ($this->tell)($bytes);
    }

    /** What is other there than it is listed here is thrown away, so that it is carried again. */
    private function readBack(string $at, string $folder): void
    {
        foreach (ListedFiles::of($folder) as $path => $digest) {
            if (! $this->there->fileExists("{$at}/{$path}")) {
                throw PlaceFails::lacks($path, $this->place->words());
            }
            if (! hash_equals($digest, $this->digest("{$at}/{$path}"))) {
                $this->there->delete("{$at}/{$path}");
                if (! str_ends_with($at, '.part')) {
                    $this->there->move($at, "{$at}.part"); // it is no whole copy any more, and bears no bag's name
                }
                throw PlaceFails::lies($path, $this->place->words());
            }
        }
    }

    private function digest(string $path): string
    {
        $stream = $this->there->readStream($path);
        $hash = hash_init('sha256');
        while (! feof($stream)) {
            $text = (string) fread($stream, self::CHUNK);
            hash_update($hash, $text);
            ($this->tell)(strlen($text));
        }
        fclose($stream);

        return hash_final($hash);
    }

    private function get(string $path, string $file): void
    {
        is_dir(dirname($file)) || mkdir(dirname($file), 0o700, true);
        if (is_file($file) && filesize($file) === $this->there->fileSize($path)) {
            ($this->tell)(filesize($file));

            return;
        }
        $in = $this->there->readStream($path);
        $out = fopen($file, 'wb');
        if ($out === false) {
            throw new \RuntimeException('The folder for bags is not writable.');
        }
        while (! feof($in)) {
            $text = (string) fread($in, self::CHUNK);
            fwrite($out, $text) === strlen($text)
                || throw new \RuntimeException('The disk took only a part of what was fetched.');
            ($this->tell)(strlen($text));
        }
        fclose($in);
        fclose($out);
    }

    /** A place that lies may also list what leads out of the folder. */
    private static function isPlain(string $path): bool
    {
        return $path !== '' && ! str_contains("/{$path}/", '/../') && ! str_contains($path, "\0");
    }
}
