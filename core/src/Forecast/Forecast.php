<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/** How long an open window is likely to hold, from how long those like it did once they were as old as it is. */
final readonly class Forecast
{
    /**
     * @param  float  $age  days since it was superseded
     * @param  int  $closings  windows of the pool that were seen to close
     * @param  SurvivalCurve  $curve  of those that got as old, in days since superseding
     */
    public function __construct(
        public PastWindow $window,
        public \DateTimeImmutable $madeAt,
        public float $age,
        public Pool $pool,
        public int $closings,
        public SurvivalCurve $curve,
    ) {
    }

    /** The chance that the window is still open at a moment from now on. */
    public function chanceAt(\DateTimeImmutable $moment): Chance
    {
        $days = max($this->age, $this->window->days($moment));

        return new Chance(
            $this->curve->chanceAt($days),
            $this->curve->stepAt($days)?->interval(),
            $days > ($this->curve->longest() ?? 0.0),
            $moment,
        );
    }

    /** When half of such windows were closed, counted from when this one was superseded; null where half never were. */
    public function halfClosedBy(): ?\DateTimeImmutable
    {
        $days = $this->curve->timeOfShare(0.5);

        return $days === null ? null : $this->window->dayAfter($days);
    }

    /** How many closings came at a later age than the window has: what the chances rest on in the end. */
    public function laterClosings(): int
    {
        return $this->curve->ends();
    }

    /** "It rests on 12 closings of Tarn releases, 7 of them at a later age than this window has." */
    public function restsOn(): string
    {
        return "It rests on {$this->closings} closings of {$this->pool->words($this->window)}, "
            ."{$this->laterClosings()} of them at a later age than this window has.";
    }

    /**
     * How the chance falls from now on, for drawing: at the moment it was made, and at every closing that is later.
     *
     * @return list<array{\DateTimeImmutable, float}>
     */
    public function points(): array
    {
        $points = [[$this->madeAt, 1.0]];
        foreach ($this->curve->steps as $step) {
            if ($step->ended > 0) {
                $points[] = [$this->window->dayAfter($step->time), $step->survival];
            }
        }

        return $points;
    }
}
