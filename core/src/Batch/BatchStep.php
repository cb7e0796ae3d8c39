<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Job\Need;
use JadeStep\Core\Route\Minutes;

/** One step of a device in a batch. */
final readonly class BatchStep
{
    /**
     * @param  string  $name  what it is called, a step's code for a job
     * @param  list<string>  $needs  of the workshop, by name
     * @param  list<int>  $after  the steps of the same device that come before it, by their place in its list
     * @param  \DateTimeImmutable|null  $notBefore  it cannot begin earlier (a lock delay, say)
     * @param  \DateTimeImmutable|null  $startBefore  it has to begin before that (a window's end)
     * @param  list<string>  $fetches  the packages that have to be here
     * @param  bool  $runs  whether it runs already, so that its minutes are those that are left
     */
    public function __construct(
        public string $name,
        public int $leg,
        public Minutes $minutes,
        public array $needs,
        public array $after,
        public ?\DateTimeImmutable $notBefore = null,
        public ?\DateTimeImmutable $startBefore = null,
        public array $fetches = [],
        public bool $runs = false,
    ) {
    }

    /**
     * @param  list<self>  $steps
     * @return float expected minutes of all, one after the other
     */
    public static function minutesOf(array $steps): float
    {
        return array_sum(array_map(static fn (self $s): float => $s->minutes->expected, $steps));
    }

    public function needs(Need $need): bool
    {
        return in_array($need->value, $this->needs, true);
    }
}
