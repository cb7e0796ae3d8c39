<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Exchange\GoalDocument;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Route\Plan;

/** The plan from where a device stands, for one goal. */
final readonly class OnwardResource implements \JsonSerializable
{
    public function __construct(private Goal $goal, private Plan $plan)
    {
    }

    public function jsonSerialize(): mixed
    {
        return ['goal' => GoalDocument::write($this->goal), 'plan' => PlanDocument::write($this->plan)];
    }
}
