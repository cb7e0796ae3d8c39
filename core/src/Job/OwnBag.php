<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

use JadeStep\Core\Bag\BagState;

/** The bag that a job took itself and counts on. */
final readonly class OwnBag
{
    public function __construct(public string $id, public BagState $state, public bool $encrypted)
    {
    }
}
