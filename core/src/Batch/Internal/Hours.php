<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch\Internal;

/** Working hours in seconds from a batch's start. */
final class Hours
{
    /** The span that was found last: what is asked for next is seldom earlier. */
    private int $last = 0;

    private readonly int $longest;

    /** @param  list<array{int, int}>  $spans  in the order of time; none: always */
    public function __construct(private readonly array $spans)
    {
        $this->longest = max([0, ...array_map(static fn (array $s): int => $s[1] - $s[0], $spans)]);
    }

    /**
     * The first moment from a time on at which so many seconds of work fit into one span. What is longer than any span
     * begins with one, and goes on after it.
     */
    public function firstFit(int $time, int $seconds): int
    {
        if ($this->spans === []) {
            return $time;
        }
        $seconds = min($seconds, $this->longest);
        $count = count($this->spans);
        for ($i = $this->spans[$this->last][0] <= $time ? $this->last : 0; $i < $count; $i++) {
            $start = max($time, $this->spans[$i][0]);
            if ($start + $seconds <= $this->spans[$i][1]) {
                $this->last = $i;

                return $start;
            }
        }

        return max($time, $this->spans[$count - 1][1]);
    }
}
