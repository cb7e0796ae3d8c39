<?php

declare(strict_types=1);

namespace App\Almanac;

use JadeStep\Core\Job\Problem;

/** How one try to refresh a vendor's word ended. Where there is a problem, the held catalogue stays. */
final readonly class RefreshResult
{
    public function __construct(public string $vendor, public int $changes, public ?Problem $problem)
    {
    }
}
