<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

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
     *
     * @throws WorkFolderHeld|WriteFailed
     */
    public static function hold(string $target): self
    {
        $path = $target.'.writing';
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
