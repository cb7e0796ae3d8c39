<?php

declare(strict_types=1);

namespace App\Ports\Exception;

/** A message did not go out, as far as is known. */
final class NotSent extends \RuntimeException
{
    /** @param  bool  $maybe  whether it may have gone out all the same: then it is not sent again */
    public function __construct(string $message, public readonly bool $maybe = false, ?\Throwable $previous = null)
    {
        parent::__construct(mb_substr($message, 0, 500), 0, $previous);
    }
}
