<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** One thing that a job rests on, with why. */
final readonly class Holding
{
    /** @param  string  $id  a bag's id, or a package's SHA-256 */
    public function __construct(public HoldingKind $kind, public string $id, public string $why)
    {
    }
}
