<?php

declare(strict_types=1);

namespace App\Reading;

/** Which acts of the Journal are asked for; null where it does not matter. */
final readonly class JournalFilter
{
    /**
     * @param  string|null  $act  its code
     * @param  \DateTimeImmutable|null  $until  not including
     * @param  string|null  $words  a part of what is written down
     */
    public function __construct(
        public ?string $serial = null,
        public ?int $job = null,
        public ?string $who = null,
        public ?string $act = null,
        public ?\DateTimeImmutable $from = null,
        public ?\DateTimeImmutable $until = null,
        public ?string $words = null,
    ) {
    }
}
