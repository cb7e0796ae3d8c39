<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/** How many days ahead a chance is told for, so that it can be judged. */
enum Horizon: int
{
    case Week = 7;
    case Month = 30;

    public function after(\DateTimeImmutable $moment): \DateTimeImmutable
    {
        return $moment->modify("+{$this->value} days");
    }
}
