<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** One step of a job: what is done, and in which leg of the route. */
final readonly class StepAt
{
    /** @param  int  $leg  from 0; 0 where the step is of no leg */
    public function __construct(public StepCode $code, public int $leg = 0)
    {
    }

    public function is(self $other): bool
    {
        return $this->code === $other->code && $this->leg === $other->leg;
    }
}
