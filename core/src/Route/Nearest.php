<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Channel;
use JadeStep\Core\Version\Version;

/** What comes nearest to a goal that nothing reaches: on the way to it, or else just beyond it. */
final class Nearest
{
    /**
     * Of the reachable versions between the installed one and what was asked the one closest to what was asked, up or
     * down; else, beyond what was asked, the closest to it. Where the goal is what is installed there is none.
     *
     * @param  list<Build>  $reached  highest first
     * @param  Build|null  $installed  as the almanac knows it
     */
    public static function of(array $reached, Situation $situation, ?Build $installed): ?Build
    {
        $goal = $situation->goal;
        $from = $situation->device->version;
        if ($situation->device->bootable && $goal->isMetBy($from, $installed)) {
            return null;
        }
        $usable = array_filter(
            $reached,
            static fn (Build $b): bool => $b->channel !== Channel::Beta && ! $b->version->equals($from),
        );
        $isAbove = static fn (Build $b): bool => $goal->isBelow($b);
        $down = $goal->liesBelow($from, $installed);
        $onTheWay = array_filter(
            $usable,
            static fn (Build $b): bool => $b->version->isBelow($from) === $down && $isAbove($b) === $down,
        );
        $beyond = array_filter(
            $usable,
            static fn (Build $b): bool => $b->version->isBelow($from) === $down && $isAbove($b) !== $down,
        );

        return $down
            ? self::lowest($onTheWay) ?? self::highest($beyond)
            : self::highest($onTheWay) ?? self::lowest($beyond);
    }

    /** @param  array<Build>  $builds  highest first */
    private static function highest(array $builds): ?Build
    {
        return array_values($builds)[0] ?? null;
    }

    /** @param  array<Build>  $builds  highest first; of one version the latest */
    private static function lowest(array $builds): ?Build
    {
        $lowest = null;
        foreach ($builds as $build) {
            $lowest = $lowest?->version->equals($build->version) === true ? $lowest : $build;
        }

        return $lowest;
    }
}
