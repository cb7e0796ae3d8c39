<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;

/** How far a cloud backup has arrived on a device, by the device's own listing, which beats a person's word. */
final readonly class Arrival
{
    /** @param  array<string, array{int, int}>  $tally  items there, and before, by kind code */
    private function __construct(public array $tally)
    {
    }

    /**
     * What the device has of its own from the start (settings), and what it held nothing of, tells nothing of the
     * backup.
     *
     * @param  list<Kind>  $kinds  that the cloud backup is said to hold
     */
    public static function of(array $kinds, Device $before, Device $now): self
    {
        $tally = [];
        foreach ($kinds as $kind) {
            $had = $before->itemsOf($kind);
            if ($had > 0 && $kind !== Kind::Settings) {
                $tally[$kind->value] = [$now->itemsOf($kind), $had];
            }
        }

        return new self($tally);
    }

    public function isWhole(): bool
    {
        return $this->tally !== [] && $this->short() === [];
    }

    public function hasBegun(): bool
    {
        return array_filter($this->tally, static fn (array $t): bool => $t[0] > 0) !== [];
    }

    /** What is not all there, in words: "3 of 30 in photos". */
    public function shortWords(): string
    {
        $words = static fn (string $code, array $t): string => "{$t[0]} of {$t[1]} in ".Kind::from($code)->label();

        return implode(', ', array_map($words, array_keys($this->short()), $this->short()));
    }

    /** @return array<string, array{int, int}> */
    private function short(): array
    {
        return array_filter($this->tally, static fn (array $t): bool => $t[0] < $t[1]);
    }
}
