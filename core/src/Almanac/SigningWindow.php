<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

/** A span of time, from (inclusive) until (exclusive), in which the vendor signs a package for installing. */
final readonly class SigningWindow
{
    private function __construct(
        public \DateTimeImmutable $from,
        public ?\DateTimeImmutable $until,
        public bool $announced,
    ) {
    }

    public static function open(\DateTimeImmutable $from): self
    {
        return new self($from, null, false);
    }

    /** @param  bool  $announced whether the end was published ahead of its time */
    public static function between(\DateTimeImmutable $from, \DateTimeImmutable $until, bool $announced = false): self
    {
        return new self($from, $until, $announced);
    }

    public function holds(\DateTimeImmutable $moment): bool
    {
        return $this->from <= $moment && ! $this->hasEndedBy($moment);
    }

    public function hasEndedBy(\DateTimeImmutable $moment): bool
    {
        return $this->until !== null && $this->until <= $moment;
    }

    public function startsAfter(\DateTimeImmutable $moment): bool
    {
        return $this->from > $moment;
    }
}
