<?php

declare(strict_types=1);

namespace App\People;

/** So many wrong tries were made that the next one has to wait. */
final class TooManyTries extends \RuntimeException
{
    public function __construct(public readonly int $seconds)
    {
        parent::__construct("Too many tries. Wait {$seconds} seconds, then try again.");
    }
}
