<?php

declare(strict_types=1);

namespace App\Watch;

enum HealthState: string
{
    case Good = 'good';
    /** Work goes on; somebody should look at it in the morning. */
    case Warns = 'warns';
    /** Work stands still, or will soon. */
    case Fails = 'fails';
}
