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

    /**
     * Windows that overlap or touch are one window.
     *
     * @param  list<self>  $windows
     * @return list<self> in the order of time
     */
    public static function joined(array $windows): array
    {
        if (count($windows) < 2) {
            return $windows;
        }
        usort($windows, static fn (self $a, self $b): int => $a->from <=> $b->from);
        $joined = [array_shift($windows)];
        foreach ($windows as $next) {
            $last = $joined[count($joined) - 1];
            if ($last->until !== null && $next->from > $last->until) {
                $joined[] = $next;
            } elseif ($next->endsAfter($last)) {
                $joined[count($joined) - 1] = new self($last->from, $next->until, $next->announced);
            }
        }

        return $joined;
    }

    /** Whether it ends later than another; one without an end ends last. */
    public function endsAfter(self $other): bool
    {
        return $other->until !== null && ($this->until === null || $this->until > $other->until);
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
