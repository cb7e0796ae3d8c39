<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Internal;

use JadeStep\Core\Job\Holding;
use JadeStep\Core\Job\HoldingKind;
use JadeStep\Core\Job\Holdings;
use JadeStep\Core\Job\Job;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\StepAt;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepFact;
use JadeStep\Core\Route\BaseUse;

/** Works out what an open job rests on. */
final class Resting
{
    public static function of(Job $job): Holdings
    {
        return new Holdings(
            $job->facts->state === JobState::Open ? [...self::bags($job), ...self::packages($job)] : [],
        );
    }

    /** @return list<Holding> the base and the job's own bag first */
    private static function bags(Job $job): array
    {
        $facts = $job->facts;
        $own = $facts->bag?->id;
        $why = [];
        $routeBase = $facts->route?->base?->backup;
        foreach ([$facts->return?->way->bag(), $routeBase] as $base) {
            if ($base !== null && $base !== BaseUse::PLANNED && $base !== BaseUse::CLOUD) {
                $why[$base] ??= 'it is what is put back on the device';
            }
        }
        if ($own !== null) {
            $why[$own] ??= 'it is the backup of this device as it was taken in';
        }
        foreach ($facts->loweredCopies as $copy) {
            $why[$copy] ??= 'it is the lowered copy that is put back';
        }
        foreach ($facts->bagsToTakeFrom as $bag) {
            $why[$bag] ??= 'kinds or items are brought in from it';
        }

        return array_map(
            static fn (string $id): Holding => new Holding(HoldingKind::Bag, $id, $why[$id]),
            array_map(strval(...), array_keys($why)),
        );
    }

    /** @return list<Holding> the packages of the legs that lie ahead */
    private static function packages(Job $job): array
    {
        $holdings = [];
        foreach ($job->facts->route->legs ?? [] as $i => $leg) {
            if (! self::isInstalled($job, $i)) {
                $holdings[] = new Holding(
                    HoldingKind::Package,
                    $leg->package->sha256,
                    "{$leg->to->label()} is installed from it",
                );
            }
        }

        return $holdings;
    }

    private static function isInstalled(Job $job, int $leg): bool
    {
        $install = new StepAt(StepCode::Install, $leg);

        return array_filter(
            $job->facts->steps,
            static fn (StepFact $s): bool => $s->at()->is($install) && $s->isDone(),
        ) !== [];
    }
}
