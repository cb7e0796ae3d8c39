<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** An item that differs by design, with the rule that says so. */
final readonly class Rewritten
{
    public function __construct(public string $path, public RewriteRule $rule)
    {
    }
}
