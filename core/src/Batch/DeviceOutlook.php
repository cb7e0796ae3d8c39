<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** How likely one device makes it in time. */
final readonly class DeviceOutlook
{
    /** @param  float  $chance  that it makes its windows and the deadline, 0 to 1 */
    public function __construct(public FinishSpan $finish, public float $chance)
    {
    }
}
