<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Job\Need;

/** What there is to work with: how many of each thing that steps need, and when people are there. */
final readonly class Workshop
{
    /** @param  array<string, int>  $units  how many there are, by what steps call them; at least one of each */
    private function __construct(public array $units, public WorkingHours $hours)
    {
    }

    /** @param  int  $diskStreams  how many can read or write at a time without slowing each other */
    public static function of(
        int $ports,
        int $technicians,
        int $workers,
        int $lines,
        int $diskStreams,
        WorkingHours $hours,
    ): self {
        return self::ofUnits([
            Need::Port->value => $ports,
            Need::Hands->value => $technicians,
            Need::Worker->value => $workers,
            Need::Line->value => $lines,
            Need::Disk->value => $diskStreams,
        ], $hours);
    }

    /** @param  array<string, int>  $units */
    public static function ofUnits(array $units, WorkingHours $hours): self
    {
        foreach ($units as $name => $count) {
            $count > 0 || throw new \InvalidArgumentException("There has to be at least one of {$name}.");
        }

        return new self($units, $hours);
    }

    public function count(Need $need): int
    {
        return $this->units[$need->value] ?? 0;
    }

    public function withOneMore(Need $need): self
    {
        return $this->with($need, $this->count($need) + 1);
    }

    /** The same, with people there in one more span. */
    public function alsoAtWork(\DateTimeImmutable $from, \DateTimeImmutable $until): self
    {
        return self::ofUnits($this->units, $this->hours->including($from, $until));
    }

    public function with(Need $need, int $count): self
    {
        return self::ofUnits([$need->value => $count] + $this->units, $this->hours);
    }
}
