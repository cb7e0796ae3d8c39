<?php

declare(strict_types=1);

namespace App\Reading;

use JadeStep\Core\Route\Fit;

/** Which builds of its model a device in work can take at all. */
final readonly class DeviceFit implements \JsonSerializable
{
    /** @param  array<string, Fit>  $fits  by build */
    public function __construct(public string $serial, public array $fits)
    {
    }

    public function jsonSerialize(): mixed
    {
        return [
            'serial' => $this->serial,
            'fits' => (object) array_map(static fn (Fit $f): string => $f->value, $this->fits),
        ];
    }
}
