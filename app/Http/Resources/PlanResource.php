<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Route\Plan;

/** A plan document. */
final readonly class PlanResource implements \JsonSerializable
{
    public function __construct(private Plan $plan)
    {
    }

    public function jsonSerialize(): mixed
    {
        return PlanDocument::write($this->plan);
    }
}
