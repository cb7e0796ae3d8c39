<?php

declare(strict_types=1);

namespace App\Acts;

use JadeStep\Core\Route\Goal;
use JadeStep\Core\Route\Plan;

/** The ways onward to one goal from where a device stands after an install began. */
final readonly class OnwardPlan
{
    public function __construct(public Goal $goal, public Plan $plan)
    {
    }
}
