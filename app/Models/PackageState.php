<?php

declare(strict_types=1);

namespace App\Models;

enum PackageState: string
{
    case Wanted = 'wanted';
    case Fetching = 'fetching';
    /** Its digest was compared when it came. */
    case Whole = 'whole';
    case Failed = 'failed';
}
