<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;

/** One row of the data ledger: how a kind ends, where it comes back from, as of when, and why not from the base. */
final readonly class KindFate
{
    public function __construct(
        public Kind $kind,
        public Outcome $outcome,
        public ?Source $from,
        public ?\DateTimeImmutable $asOf,
        public ?KindReason $reason,
    ) {
    }
}
