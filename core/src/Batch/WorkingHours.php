<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** From when to when people work, on which days, by the shop's clock. Machines go on meanwhile. */
final readonly class WorkingHours
{
    /** What is further ahead than this is not looked at. */
    private const MOST_DAYS = 120;

    /**
     * @param  list<Shift>  $shifts  none: somebody is always there
     * @param  list<array{\DateTimeImmutable, \DateTimeImmutable}>  $extra  spans beside them
     */
    private function __construct(public array $shifts, public \DateTimeZone $zone, public array $extra = [])
    {
    }

    public static function always(): self
    {
        return new self([], new \DateTimeZone('UTC'));
    }

    /** @param  list<Shift>  $shifts */
    public static function of(array $shifts, \DateTimeZone $zone): self
    {
        return new self($shifts, $zone);
    }

    /** The same, with one more span in which people are there. */
    public function including(\DateTimeImmutable $from, \DateTimeImmutable $until): self
    {
        return new self($this->shifts, $this->zone, [...$this->extra, [$from, $until]]);
    }

    public function isAlways(): bool
    {
        return $this->shifts === [];
    }

    /**
     * What lies ahead of a moment, in seconds from it. Shifts that touch or overlap are one.
     *
     * @return list<array{int, int}> from and until, in the order of time; none where somebody is always there
     */
    public function spansFrom(\DateTimeImmutable $moment): array
    {
        if ($this->isAlways()) {
            return [];
        }
        $times = $this->extra;
        $day = $moment->setTimezone($this->zone)->modify('-1 day')->setTime(0, 0);
        for ($i = 0; $i < self::MOST_DAYS; $i++, $day = $day->modify('+1 day')) {
            foreach ($this->shifts as $shift) {
                $times[] = $shift->on($day);
            }
        }
        $known = array_values(array_filter($times, static fn (?array $t): bool => $t !== null));
        $from = $moment->getTimestamp();
        $spans = array_map(static fn (array $t): array => [
            max(0, $t[0]->getTimestamp() - $from),
            $t[1]->getTimestamp() - $from,
        ], $known);

        return self::joined(array_values(array_filter($spans, static fn (array $s): bool => $s[1] > $s[0])));
    }

    /**
     * @param  list<array{int, int}>  $spans
     * @return list<array{int, int}>
     */
    private static function joined(array $spans): array
    {
        sort($spans);
        $joined = [];
        foreach ($spans as [$from, $until]) {
            $last = array_pop($joined);
            if ($last !== null && $from > $last[1]) {
                $joined[] = $last;
                $last = null;
            }
            $joined[] = $last === null ? [$from, $until] : [$last[0], max($last[1], $until)];
        }

        return $joined;
    }
}
