<?php

declare(strict_types=1);

namespace App\SecondPlace;

use JadeStep\Core\Job\Problem;
use League\Flysystem\FilesystemException;

/** The second place does not do what it is for: it is full, silent, another one, or gives back other bytes. */
final class PlaceFails extends \RuntimeException
{
    private function __construct(public readonly string $reason, string $message, ?\Throwable $previous = null)
    {
        parent::__construct($message, 0, $previous);
    }

    public static function full(string $where, int $free, int $wanted): self
    {
        $mebibytes = static fn (int $bytes): string => round($bytes / 1_048_576).' MiB';

        return new self('place-full', "The second place {$where} is full: it has {$mebibytes($free)} left, and "
            ."{$mebibytes($wanted)} are wanted. Make room there; it goes on by itself.");
    }

    public static function notMarked(string $where): self
    {
        return new self('place-not-there', "What is at {$where} is not the second place that was set up: its mark is "
            .'not there. See that the disk is mounted; where it is another disk, set the second place up anew in '
            .'Settings.');
    }

    public static function lies(string $path, string $where): self
    {
        return new self('place-lies', "The second place {$where} gave back other bytes of {$path} than it was given. "
            .'They were thrown away there and are carried again. Where that goes on, do not rely on this place.');
    }

    public static function lacks(string $path, string $where): self
    {
        return new self('place-lacks', "The second place {$where} does not have {$path} any more.");
    }

    public static function fails(string $where, string $doing, FilesystemException $e): self
    {
        return new self('place-fails', "The second place {$where} did not let {$doing}: it is full, does not answer, "
            .'or takes nothing from this account. What is there already stays; it is tried again by itself.', $e);
    }

    public static function sourceIsNotSound(string $path): self
    {
        return new self('source-not-sound', "{$path} of this bag cannot be read here. Verify the bag on the Shelf.");
    }

    public function problem(): Problem
    {
        return Problem::told($this->reason, $this->getMessage());
    }
}
