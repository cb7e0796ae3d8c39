<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

use JadeStep\Core\Bag\Item;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Exchange\DeviceDocument;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Proof\JobProof;
use JadeStep\Core\Proof\ProvenKind;
use JadeStep\Core\Proof\RewrittenItem;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Route\Route;

/**
 * What is left of a job when its device's owner is forgotten: the model, the builds, the route, the minutes and every
 * count; no item's name, no app, no accessory.
 */
final class Forgotten
{
    public static function device(Device $device): Device
    {
        return DeviceDocument::read(
            Fields::of(['apps' => [], 'accessories' => []] + DeviceDocument::write($device)),
        );
    }

    public static function route(Route $route): Route
    {
        $l = $route->losses;

        return new Route(
            $route->id,
            $route->legs,
            $route->fetchBytes,
            $route->diskPeakBytes,
            $route->minutes,
            $route->base,
            $route->kinds,
            $route->staleSeconds,
            new Losses($l->lost, $l->atRisk, $l->outOfDate, [], []),
            '', // the sentence names apps and accessories
            $route->steps,
            $route->latestStart,
        );
    }

    public static function proof(JobProof $proof): JobProof
    {
        return new JobProof(
            $proof->comparedAt,
            $proof->beforeVersion,
            $proof->beforeBuild,
            $proof->afterVersion,
            $proof->afterBuild,
            array_map(self::kind(...), $proof->kinds),
        );
    }

    private static function kind(ProvenKind $k): ProvenKind
    {
        return new ProvenKind(
            $k->promise,
            $k->before,
            $k->there,
            $k->happened,
            $k->verdict,
            $k->namedLater,
            $k->compared,
            $k->same,
            array_map(static fn (RewrittenItem $i) => new RewrittenItem('', $i->rule, $i->words), $k->changed),
            [],
            [],
            $k->moreExtra + count($k->extra),
            $k->moreMissing + count($k->missing),
            $k->moreUnnamed + count(array_filter($k->missing, static fn (Item $i): bool => self::isUnnamed($k, $i))),
        );
    }

    /** As `ProvenKind::unnamedItems` counts them. */
    private static function isUnnamed(ProvenKind $k, Item $item): bool
    {
        $asOf = $k->promise->outcome === Outcome::ReturnedAsOf ? $k->promise->asOf : null;

        return $asOf === null || $item->modifiedAt <= $asOf;
    }
}
