<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** How much is tried to find a good schedule. The same seed and batch give the same schedule, unless time ran out. */
final readonly class Effort
{
    /** How many steps are placed in all while a schedule is bettered. */
    private const STEPS = 150_000;

    private const MOST_TRIES = 2_000;

    /**
     * @param  int  $seed  that chance follows
     * @param  int|null  $tries  schedules that are tried; null: as many as suit the size
     * @param  float  $seconds  after which no more is tried
     */
    private function __construct(public int $seed, public ?int $tries, public float $seconds)
    {
    }

    public static function usual(int $seed): self
    {
        return new self($seed, null, 20.0);
    }

    /** For a look at what would be if. */
    public static function small(int $seed): self
    {
        return new self($seed, 40, 5.0);
    }

    public function triesFor(int $steps): int
    {
        return $this->tries ?? max(40, min(self::MOST_TRIES, intdiv(self::STEPS, max(1, $steps))));
    }

    public function withTries(int $tries): self
    {
        return new self($this->seed, $tries, $this->seconds);
    }
}
