<?php

declare(strict_types=1);

namespace App\Ports\Exception;

/** The other side understood and said no. Its reason code and its words are kept. */
final class Declined extends \RuntimeException
{
    public function __construct(public readonly string $reason, string $words, public readonly int $status)
    {
        parent::__construct($words);
    }
}
