<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** Why a device does not make it in time. */
final readonly class Lateness
{
    /**
     * @param  \DateTimeImmutable|null  $windowEnds  the window that is closed by its turn
     * @param  float  $byMinutes  by how much it is after the deadline; 0 where it is a window that it misses
     * @param  Waiting|null  $for  what it waits for the longest; null where its way alone takes too long
     * @param  float  $waits  minutes that it waits for that
     */
    private function __construct(
        public ?\DateTimeImmutable $windowEnds,
        public float $byMinutes,
        public ?Waiting $for,
        public float $waits,
    ) {
    }

    public static function afterDeadline(float $byMinutes, ?Waiting $for, float $waits): self
    {
        return new self(null, $byMinutes, $for, $waits);
    }

    public static function afterWindow(\DateTimeImmutable $windowEnds, ?Waiting $for, float $waits): self
    {
        return new self($windowEnds, 0.0, $for, $waits);
    }

    /** "waits", "way", "window" */
    public function code(): string
    {
        return $this->windowEnds !== null ? 'window' : ($this->for === null ? 'way' : 'waits');
    }

    /** "It waits 80 min for a port, and is 25 min late." */
    public function words(): string
    {
        $waits = $this->for === null ? '' : 'It waits '.self::minutes($this->waits)." {$this->for->words()}";
        if ($this->windowEnds !== null) {
            return ($waits === '' ? 'Its way takes too long' : $waits)
                .': its window closes before its permit can be asked for.';
        }

        return ($waits === '' ? 'Its way alone takes too long' : $waits).', and is '
            .self::minutes($this->byMinutes).' late.';
    }

    private static function minutes(float $minutes): string
    {
        $whole = max(1, (int) round($minutes));

        return $whole < 100 ? "{$whole} min" : intdiv($whole, 60).' h '.($whole % 60).' min';
    }
}
