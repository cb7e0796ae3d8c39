<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Exception\LoweringRefused;
use JadeStep\Core\Bag\Exception\WorkFolderHeld;
use JadeStep\Core\Bag\Exception\WriteFailed;

/** A folder in which one bag grows. One process holds it at a time; a killed one lets go of it by dying. */
final class WorkFolder
{
    /** @param  resource  $lock */
    private function __construct(public readonly string $path, private $lock)
    {
    }

    /**
     * @param  string  $target  the folder that the bag will have
     * @param  string|null  $purpose  of work that begins anew whenever it is taken up: a folder that is there already
     *   is taken only where it was begun for the very same
     *
     * @throws WorkFolderHeld|WriteFailed|LoweringRefused
     */
    public static function hold(string $target, ?string $purpose = null): self
    {
        $path = $target.'.writing';
        if ($purpose !== null) {
            self::begin($path, $purpose);
        }
        Tree::makeFolder("{$path}/bag/data");
        $lock = @fopen("{$path}/.holder", 'c');
        if ($lock === false) {
            throw WriteFailed::at(basename($path));
        }
        if (! flock($lock, LOCK_EX | LOCK_NB)) {
            throw WorkFolderHeld::of(basename($target));
        }

        return new self($path, $lock);
    }

    private static function begin(string $path, string $purpose): void
    {
        if (file_exists($path) || is_link($path)) {
            if (is_link($path) || @file_get_contents("{$path}/.purpose") !== $purpose) {
                throw LoweringRefused::inUse(basename($path));
            }

            return;
        }
        Tree::makeFolder(dirname($path));
        // under a name of its own first, so that a folder of this name always says what it is for
        $new = "{$path}.".bin2hex(random_bytes(8));
        Tree::makeFolder($new);
        if (@file_put_contents("{$new}/.purpose", $purpose) === false || ! @rename($new, $path)) {
            Tree::remove($new);
            throw LoweringRefused::inUse(basename($path));
        }
    }

    public function letGo(): void
    {
        is_resource($this->lock) && fclose($this->lock);
    }

    public function remove(): void
    {
        Tree::remove($this->path);
        $this->letGo();
    }
}
