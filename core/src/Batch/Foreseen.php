<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** A batch's schedule, how likely it is to hold, and what would help. */
final readonly class Foreseen
{
    /** @param  list<Help>  $helps  the most helpful first */
    private function __construct(public Schedule $schedule, public Outlook $outlook, public array $helps)
    {
    }

    /**
     * A quick look, without what would help.
     *
     * @param  \Closure(): float|null  $clock  in seconds
     */
    public static function quickly(Asked $asked, ?\Closure $clock = null): self
    {
        $schedule = Scheduler::schedule($asked->batch, Effort::small($asked->seed), $clock);

        return new self($schedule, Simulation::play($schedule, $asked->seed, Simulation::FEW_DRAWS), []);
    }

    /** @param  \Closure(): float|null  $clock  in seconds */
    public static function of(Asked $asked, \DateTimeImmutable $now, ?\Closure $clock = null): self
    {
        $schedule = Scheduler::schedule($asked->batch, Effort::usual($asked->seed), $clock, $asked->before);
        $outlook = Simulation::play($schedule, $asked->seed, $asked->draws);
        $helps = $asked->batch->devices === []
            ? []
            : Helps::of($schedule, $outlook, Effort::small($asked->seed), $now, $clock);

        return new self($schedule, $outlook, $helps);
    }
}
