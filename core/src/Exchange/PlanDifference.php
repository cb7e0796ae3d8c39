<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

/** One thing that a later plan says otherwise, with a code for programs and words for people. */
final readonly class PlanDifference
{
    public function __construct(public string $code, public string $words)
    {
    }
}
