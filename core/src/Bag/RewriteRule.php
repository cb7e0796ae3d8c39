<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Device\Kind;

/** Names items that the device itself rewrites, so that a change there is by design and no loss. */
final readonly class RewriteRule
{
    /** @param  string  $glob shell pattern on the path within the kind */
    public function __construct(public string $name, public Kind $kind, public string $glob)
    {
    }

    public function covers(Item $item): bool
    {
        return $item->kind === $this->kind->value && fnmatch($this->glob, $item->path);
    }

    /** @return list<self> common practice, no source */
    public static function usual(): array
    {
        return [new self('system-settings', Kind::Settings, 'system/*')];
    }
}
