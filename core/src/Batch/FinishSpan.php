<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** Between when and when something is done in 90 of 100 cases. */
final readonly class FinishSpan
{
    private const BELOW = 0.05;

    private const ABOVE = 0.95;

    /** @param  float  $deviation  standard deviation, in minutes */
    public function __construct(
        public \DateTimeImmutable $from,
        public \DateTimeImmutable $middle,
        public \DateTimeImmutable $until,
        public \DateTimeImmutable $mean,
        public float $deviation,
    ) {
    }

    /** @param  list<float>  $seconds  from the batch's start, one a draw */
    public static function of(Batch $batch, array $seconds): self
    {
        sort($seconds);
        $at = static fn (float $share): \DateTimeImmutable => $batch->after(
            $seconds[(int) min(count($seconds) - 1, floor($share * count($seconds)))],
        );
        $mean = array_sum($seconds) / count($seconds);
        $squares = array_sum(array_map(static fn (float $s): float => ($s - $mean) ** 2, $seconds));

        return new self(
            $at(self::BELOW),
            $at(0.5),
            $at(self::ABOVE),
            $batch->after($mean),
            sqrt($squares / count($seconds)) / 60,
        );
    }

    public function holds(\DateTimeImmutable $moment): bool
    {
        return $this->from <= $moment && $moment <= $this->until;
    }
}
