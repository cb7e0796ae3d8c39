<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Exception\UnsafePath;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\KeySet;
use JadeStep\Core\Bag\PayloadPath;

/**
 * Gives every item of a bag a file name that no file system and no other tool takes amiss, and that differs from all
 * others not only by case or Unicode form. Nearly all keep the one they have.
 */
final class StoredNames
{
    /** Files, as they are compared. */
    private readonly KeySet $files;

    /** Folders, as they are compared. */
    private readonly KeySet $folders;

    /** The folder of the last name, as it is compared: most often that of the next one too. */
    private string $last = '';

    public function __construct()
    {
        $this->files = new KeySet;
        $this->folders = new KeySet;
    }

    /** Keeps the name of an item that is stored already. */
    public function keep(Item $item): void
    {
        $this->take($item->stored());
    }

    /**
     * @return string|null where the item is to be stored, or null where that is its own name
     *
     * @throws UnsafePath where an inventory could not even name it
     */
    public function for(string $kind, string $path): ?string
    {
        $key = "{$kind}/{$path}";
        if ($path === '' || strlen($path) > Item::LONGEST_PATH || ! mb_check_encoding($path, 'UTF-8')) {
            throw UnsafePath::because($key, 'is empty, too long, or not UTF-8');
        }
        if (! self::isAwkward($key) && $this->isFree($key)) {
            $this->take($key);

            return null;
        }
        for ($try = 0; true; $try++) {
            $name = "{$kind}/".self::safe($path, hash('sha256', $try === 0 ? $key : "{$key} {$try}"));
            if ($this->isFree($name)) {
                $this->take($name);

                return $name;
            }
        }
    }

    private static function isAwkward(string $key): bool
    {
        try {
            PayloadPath::parse($key);
        } catch (UnsafePath) {
            return true;
        }

        return preg_match('#(?:\A|/)(?:~|[A-Za-z]:)|\p{Cc}#u', $key) === 1;
    }

    /** The last part of the path in letters and digits, something of its digest, and its extension. */
    private static function safe(string $path, string $digest): string
    {
        $last = (string) preg_replace('#\A.*/#s', '', $path);
        $extension = preg_match('/\.[A-Za-z0-9]{1,10}\z/', $last, $m) === 1 ? $m[0] : '';
        $stem = substr($last, 0, strlen($last) - strlen($extension));
        $stem = trim((string) preg_replace('/[^\p{L}\p{N}]+/u', '-', $stem), '-');

        return ltrim(trim(mb_strcut($stem, 0, 100), '-').'-', '-').substr($digest, 0, 16).$extension;
    }

    /** Whether no name is like it, but for case and Unicode form. */
    public function isFree(string $name): bool
    {
        $compared = self::compared($name);
        if ($this->files->has($compared) || $this->folders->has($compared)) {
            return false;
        }
        foreach ($this->newFoldersOf($compared) as $folder) {
            if ($this->files->has($folder)) {
                return false;
            }
        }

        return true;
    }

    private function take(string $name): void
    {
        $compared = self::compared($name);
        $this->files->add($compared);
        foreach ($this->newFoldersOf($compared) as $folder) {
            $this->folders->add($folder);
            $this->last = $folder;
        }
    }

    /** @return list<string> those a name is in; none where the last one was in the same, which are known */
    private function newFoldersOf(string $name): array
    {
        if ($this->last !== '' && substr($name, 0, (int) strrpos($name, '/')) === $this->last) {
            return [];
        }
        $folders = [];
        for ($at = strpos($name, '/'); $at !== false; $at = strpos($name, '/', $at + 1)) {
            $folders[] = substr($name, 0, $at);
        }

        return $folders;
    }

    /** Without case, and in one Unicode form (NFC). */
    private static function compared(string $name): string
    {
        return preg_match('/[^\x00-\x7F]/', $name) === 1
            ? mb_convert_case((string) \Normalizer::normalize($name), MB_CASE_FOLD, 'UTF-8')
            : strtolower($name); // of ASCII the same, and nearly all names are
    }
}
