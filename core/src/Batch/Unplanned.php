<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** A device of a batch that has no way to its goal, so that nothing of it can be scheduled. */
final readonly class Unplanned
{
    /** @param  string  $why  in words */
    public function __construct(public string $id, public string $label, public string $why)
    {
    }
}
