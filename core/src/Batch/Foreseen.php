<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** A batch's schedule, how likely it is to hold, and what would help. */
final readonly class Foreseen
{
    private const FEW_DRAWS = 500;

    /** @param  list<Help>  $helps  the most helpful first */
    private function __construct(public Schedule $schedule, public Outlook $outlook, public array $helps)
    {
    }

    /**
     * A quick look, without what would help.
     *
     * @param  \Closure(): float|null  $clock  in seconds
     */
    public static function quickly(Batch $batch, int $seed, ?\Closure $clock = null): self
    {
        $schedule = Scheduler::schedule($batch, Effort::small($seed), $clock);

        return new self($schedule, Simulation::play($schedule, $seed, self::FEW_DRAWS), []);
    }

    /**
     * @param  int<1, max>  $draws
     * @param  \Closure(): float|null  $clock  in seconds
     */
    public static function of(
        Batch $batch,
        int $seed,
        int $draws,
        \DateTimeImmutable $now,
        ?\Closure $clock = null,
    ): self {
        $schedule = Scheduler::schedule($batch, Effort::usual($seed), $clock);
        $outlook = Simulation::play($schedule, $seed, $draws);

        return new self(
            $schedule,
            $outlook,
            $batch->devices === [] ? [] : Helps::of($schedule, $outlook, Effort::small($seed), $now, $clock),
        );
    }
}
