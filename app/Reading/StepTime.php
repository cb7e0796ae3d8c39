<?php

declare(strict_types=1);

namespace App\Reading;

use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Route\Minutes;

/** What one step was expected to take, and what it took. */
final readonly class StepTime
{
    /** @param  float|null  $took  minutes; null where a person took it, or it has not ended */
    public function __construct(public StepCode $code, public int $leg, public ?Minutes $estimate, public ?float $took)
    {
    }
}
