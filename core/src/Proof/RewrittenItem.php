<?php

declare(strict_types=1);

namespace JadeStep\Core\Proof;

/** An item that differs by design, with the rule that says so. */
final readonly class RewrittenItem
{
    public function __construct(public string $path, public string $rule, public string $words)
    {
    }
}
