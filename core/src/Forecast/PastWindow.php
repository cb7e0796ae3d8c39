<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Channel;
use JadeStep\Core\Almanac\Package;

/**
 * What the almanac tells of one window of a build that a later one has taken the place of. Packages of a build whose
 * windows end together are one window.
 */
final readonly class PastWindow
{
    private const SECONDS_A_DAY = 86_400;

    /**
     * @param  list<string>  $digests  of the packages that it is of
     * @param  \DateTimeImmutable  $supersededAt  when the build that took its place was released
     * @param  \DateTimeImmutable|null  $endsAt  null where no end is known
     * @param  bool  $endAnnounced  whether the end was told ahead, and is no guess
     * @param  \DateTimeImmutable  $knownUntil  until when the vendor's word is good
     */
    public function __construct(
        public string $vendorId,
        public string $vendorName,
        public Build $build,
        public array $digests,
        public \DateTimeImmutable $supersededAt,
        public ?\DateTimeImmutable $endsAt,
        public bool $endAnnounced,
        public \DateTimeImmutable $knownUntil,
    ) {
    }

    /**
     * How long it had stayed signed after it was superseded, as far as was known at a moment; null where it had not
     * been superseded by then, or had closed before it was.
     *
     * @return Lasted|null in days
     */
    public function lastedAt(\DateTimeImmutable $moment): ?Lasted
    {
        if ($this->supersededAt >= $moment || ($this->endsAt !== null && $this->endsAt <= $this->supersededAt)) {
            return null;
        }
        if ($this->endsAt !== null && $this->endsAt <= $moment) {
            return Lasted::until($this->days($this->endsAt));
        }
        $seen = min($moment, $this->knownUntil);

        return $seen > $this->supersededAt ? Lasted::atLeast($this->days($seen)) : null;
    }

    public function isOpenAt(\DateTimeImmutable $moment): bool
    {
        return $this->endsAt === null || $this->endsAt > $moment;
    }

    /** Whether it was still open at a moment; null where the vendor's word does not reach so far. */
    public function heldAt(\DateTimeImmutable $then): ?bool
    {
        return ! $this->isOpenAt($then) ? false : ($this->knownUntil >= $then ? true : null);
    }

    /** @return float days from superseding to a moment */
    public function days(\DateTimeImmutable $moment): float
    {
        return ($moment->getTimestamp() - $this->supersededAt->getTimestamp()) / self::SECONDS_A_DAY;
    }

    /** @param  float  $days  from superseding on */
    public function dayAfter(float $days): \DateTimeImmutable
    {
        return $this->supersededAt->setTimestamp(
            $this->supersededAt->getTimestamp() + (int) round($days * self::SECONDS_A_DAY),
        );
    }

    public function channel(): Channel
    {
        return $this->build->channel;
    }

    public function isOf(Package $package): bool
    {
        return in_array($package->sha256, $this->digests, true);
    }
}
