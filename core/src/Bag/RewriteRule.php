<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Device\Kind;

/** Names items that the device itself rewrites, so that a change there is by design and no loss. */
final readonly class RewriteRule
{
    /**
     * @param  string  $words  what the device does there
     * @param  string  $glob  shell pattern on the path within the kind
     */
    public function __construct(public string $name, public string $words, public Kind $kind, public string $glob)
    {
    }

    public function covers(Item $item): bool
    {
        return $item->kind === $this->kind->value && fnmatch($this->glob, $item->path);
    }

    /**
     * Common practice, no source.
     *
     * @param  bool  $appsAreMissing  whether apps that were there do not run on this version
     * @return list<self>
     */
    public static function usual(bool $appsAreMissing = false): array
    {
        return [
            new self('system-settings', 'The device writes its own system settings.', Kind::Settings, 'system/*'),
            ...$appsAreMissing
                ? [
                    new self(
                        'layout-without-apps',
                        'The home layout leaves out apps that do not run on this version.',
                        Kind::HomeLayout,
                        'layout.json',
                    ),
                ]
                : [],
        ];
    }
}
