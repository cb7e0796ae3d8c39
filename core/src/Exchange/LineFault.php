<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

/** What is wrong with a line of a table. */
final readonly class LineFault implements \JsonSerializable
{
    public function __construct(public int $line, public string $message)
    {
    }

    public function jsonSerialize(): mixed
    {
        return get_object_vars($this);
    }
}
