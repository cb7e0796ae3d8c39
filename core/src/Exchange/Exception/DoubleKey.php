<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange\Exception;

/** A key of a JSON object stands twice. */
final class DoubleKey extends \RuntimeException implements ExchangeException
{
    private function __construct(public readonly string $pointer)
    {
        parent::__construct('a key stands twice: which of the two counts would be a guess');
    }

    public static function at(string $pointer): self
    {
        return new self($pointer);
    }
}
