<?php

declare(strict_types=1);

namespace App\Facts;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\WayBack\PutBack;
use JadeStep\Core\Route\BaseUse;

/**
 * The bag that a job's return rests on. That none is wanted and that the wanted one is gone are two different things.
 */
final readonly class BaseOfJob
{
    public function __construct(private BagStore $bags)
    {
    }

    /** Whether a whole bag is put back at all. */
    public static function isWanted(BenchJob $job): bool
    {
        return $job->return()?->way instanceof PutBack;
    }

    /** @return Bag|null null where none is wanted, or where the wanted one is not on the Shelf any more */
    public static function find(BenchJob $job): ?Bag
    {
        $way = $job->return()?->way;

        return match (true) {
            ! $way instanceof PutBack => null,
            $way->bag === BaseUse::PLANNED => $job->safetyBag(),
            default => Bag::query()->whereKey($way->bag)->first(),
        };
    }

    /** The bag that before and after are compared by: the job's own, or the one that is put back or taken from. */
    public static function comparedWith(BenchJob $job): ?Bag
    {
        $own = $job->safetyBag() ?? self::find($job);
        $from = $job->return()?->way->bag();

        return $own ?? ($from === null ? null : Bag::query()->whereKey($from)->first());
    }

    /** Whether there has to be a bag that before and after are compared by. */
    public static function hasBag(BenchJob $job): bool
    {
        return $job->intent->crosses() || $job->return()?->way->bag() !== null;
    }

    /** What is said where the wanted bag is not whole any more when it is to be put back. */
    public static function missing(): Problem
    {
        return Problem::of(
            ProblemCode::BaseMissing,
            'The backup that is to be put back is not whole on the Shelf any more. Nothing is put back in its '
                .'place: choose another.',
        );
    }

    /** @return Bag|null null where the wanted bag is gone, damaged, or not there as a folder */
    public function whole(BenchJob $job): ?Bag
    {
        $bag = self::find($job);

        return $bag === null || $bag->state === BagState::Damaged || ! $this->bags->has($bag->id) ? null : $bag;
    }
}
