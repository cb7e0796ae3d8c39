<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\Record\OverlayState;

/** How far a cloud backup has arrived on a device, by the device's own listing, which beats a person's word. */
final readonly class Arrival
{
    /**
     * @param  array<string, array{int, int}>  $tally  items there, and before, by kind code
     * @param  int  $uncounted  items there of kinds of which nothing tells how many there were before
     */
    private function __construct(public array $tally, private int $uncounted)
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
        $uncounted = 0;
        foreach ($kinds as $kind) {
            $had = $before->itemsOf($kind);
            if ($had > 0 && $kind !== Kind::Settings) {
                $tally[$kind->value] = [$now->itemsOf($kind), $had];
            } elseif ($kind !== Kind::Settings) {
                $uncounted += $now->itemsOf($kind);
            }
        }

        return new self($tally, $uncounted);
    }

    /**
     * The device's own listing beats what it tells of the fetching, and that beats a person's word.
     *
     * @param  CloudFetch|null  $told  null where the device tells nothing of it
     * @param  OverlayState|null  $word  a person's
     * @return CloudOutcome|null null while it is waited for
     */
    public function outcome(?CloudFetch $told, ?OverlayState $word): ?CloudOutcome
    {
        $fetched = $told !== null && ! $told->refused;
        $refused = $told?->refused === true || $word === OverlayState::Refused;
        $isAll = $word === OverlayState::Attested || $word === OverlayState::NotWaited;

        return match (true) {
            $this->isWhole() => CloudOutcome::Arrived,
            $this->tally === [] && $this->hasBegun() && ($fetched || $isAll) => CloudOutcome::Arrived,
            $this->hasBegun() && $isAll => CloudOutcome::Partly,
            ! $this->hasBegun() && $refused => CloudOutcome::Refused,
            default => null,
        };
    }

    public function isWhole(): bool
    {
        return $this->tally !== [] && $this->short() === [];
    }

    public function hasBegun(): bool
    {
        return $this->uncounted > 0 || array_filter($this->tally, static fn (array $t): bool => $t[0] > 0) !== [];
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
