<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/** The minutes that one step of a route is expected to take. */
final readonly class StepEstimate
{
    /**
     * @param  string  $step  the code of a job's step
     * @param  int  $leg  from 0; 0 where the step is of no leg
     */
    public function __construct(public string $step, public int $leg, public Minutes $minutes)
    {
    }
}
