<?php

declare(strict_types=1);

namespace App\Almanac;

/** How one try to refresh a vendor's word ended. Where there is a problem, the held catalogue stays. */
final readonly class RefreshResult
{
    /** @param  array{code: string, detail: string}|null  $problem */
    public function __construct(public string $vendor, public int $changes, public ?array $problem)
    {
    }
}
