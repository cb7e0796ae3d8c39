<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

use JadeStep\Core\Time\Rfc3339;

/** One build's signing windows for one model, and what they mean at a moment, in words. */
final readonly class WindowLane
{
    private function __construct(
        public Build $build,
        public Package $package,
        public LaneState $state,
        public string $words,
    ) {
    }

    /** @return list<self> every build that has a package for the model, highest first */
    public static function forModel(Almanac $almanac, string $hardwareId, \DateTimeImmutable $now): array
    {
        $osLine = $almanac->model($hardwareId)?->osLine;
        $lanes = [];
        foreach ($osLine === null ? [] : $almanac->builds($osLine) as $build) {
            $package = $build->packageFor($hardwareId, $now);
            if ($package !== null) {
                $stale = $build->isStaleFor($hardwareId, $now);
                $lanes[] = self::of($build, $package, $stale ? $package->freshUntil : null, $now);
            }
        }

        return $lanes;
    }

    private static function of(
        Build $build,
        Package $package,
        ?\DateTimeImmutable $staleSince,
        \DateTimeImmutable $now,
    ): self {
        if ($staleSince !== null) {
            return new self(
                $build,
                $package,
                LaneState::Unknown,
                'Not known: the almanac is stale since '.self::day($staleSince).'.',
            );
        }
        $open = $package->windowAt($now);
        if ($open !== null) {
            return $open->until === null
                ? new self(
                    $build,
                    $package,
                    LaneState::Signed,
                    'Signed now, since '.self::day($open->from).'; no end is known.',
                )
                : new self(
                    $build,
                    $package,
                    LaneState::EndAnnounced,
                    'Signed now, since '
                        .self::day($open->from)
                        .'; the end is announced for '
                        .self::day($open->until)
                        .'.',
                );
        }

        return self::notOpen($build, $package, $now);
    }

    private static function notOpen(Build $build, Package $package, \DateTimeImmutable $now): self
    {
        $ends = [];
        $starts = [];
        foreach ($package->windows as $window) {
            $window->until !== null && $window->until <= $now ? $ends[] = $window->until : $starts[] = $window->from;
        }
        $closed = $ends === [] ? '' : 'Closed since '.self::day(max($ends)).'.';
        $opens = $starts === [] ? '' : ' Opens on '.self::day(min($starts)).'.';

        return $starts === []
            ? new self($build, $package, LaneState::Closed, $closed === '' ? 'Never signed for this model.' : $closed)
            : new self($build, $package, LaneState::NotOpenYet, trim($closed.$opens));
    }

    private static function day(\DateTimeImmutable $time): string
    {
        return Rfc3339::format($time);
    }
}
