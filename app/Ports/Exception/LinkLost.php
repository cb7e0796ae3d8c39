<?php

declare(strict_types=1);

namespace App\Ports\Exception;

/** The other side did not answer, or stopped in the middle. It may answer later. */
final class LinkLost extends \RuntimeException
{
    public static function to(string $whom, ?\Throwable $previous = null): self
    {
        return new self("{$whom} does not answer.", 0, $previous);
    }
}
