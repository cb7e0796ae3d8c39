<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

/** One action of the key sequence that puts a model into recovery mode. */
final readonly class KeyAction
{
    public function __construct(public string $action, public string $target, public ?float $seconds)
    {
    }
}
