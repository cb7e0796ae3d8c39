<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Almanac\Channel;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Route\BaseUse;
use JadeStep\Core\Route\BuildName;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Route\KindReason;
use JadeStep\Core\Route\Leg;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Route\Minutes;
use JadeStep\Core\Route\Move;
use JadeStep\Core\Route\PackageName;
use JadeStep\Core\Route\Route;
use JadeStep\Core\Route\Source;
use JadeStep\Core\Route\StepEstimate;
use JadeStep\Core\Route\Treatment;
use JadeStep\Core\Time\Rfc3339;

/**
 * A route as a plan document has it. Minutes are rounded to one decimal.
 *
 * @implements Document<Route>
 */
final class RouteDocument implements Document
{
    public static function write(object $value): array
    {
        return [
            'id' => $value->id,
            'legs' => array_map(self::leg(...), $value->legs),
            'erases' => $value->erases(),
            'fetchBytes' => $value->fetchBytes,
            'diskPeakBytes' => $value->diskPeakBytes,
            'minutes' => self::minutes($value->minutes),
            'steps' => array_map(self::step(...), $value->steps),
            'latestStart' => Rfc3339::formatOrNull($value->latestStart),
            'base' => $value->base === null ? null : self::base($value->base),
            'kinds' => array_map(self::fate(...), $value->kinds),
            'staleSeconds' => $value->staleSeconds,
            'losses' => self::losses($value->losses),
            'trade' => $value->trade,
        ];
    }

    public static function read(Fields $document): Route
    {
        return new Route(
            $document->string('id'),
            $document->each('legs', self::readLeg(...)),
            $document->int('fetchBytes'),
            $document->int('diskPeakBytes'),
            self::readMinutes($document->in('minutes')),
            self::readBase($document->maybeIn('base')),
            $document->each('kinds', self::readFate(...)),
            // a route that was kept before this was told
            $document->maybeInt('staleSeconds') ?? 0,
            self::readLosses($document->in('losses')),
            $document->string('trade'),
            $document->each('steps', self::readStep(...)),
            $document->maybeTime('latestStart'),
        );
    }

    /** @return array<string, string> */
    public static function build(BuildName $build): array
    {
        return ['version' => (string) $build->version, 'build' => $build->build, 'channel' => $build->channel->value];
    }

    public static function readBuild(Fields $f): BuildName
    {
        return new BuildName($f->version('version'), $f->string('build'), $f->enum('channel', Channel::class));
    }

    /** @return array<string, mixed> */
    public static function base(BaseUse $base): array
    {
        return [
            'backup' => $base->backup,
            'treatment' => $base->treatment->value,
            'declaredVersion' => $base->declaredVersion === null ? null : (string) $base->declaredVersion,
            'majorsDown' => $base->majorsDown,
            'unproven' => $base->unproven,
        ];
    }

    /** @return array<string, mixed> */
    public static function fate(KindFate $fate): array
    {
        return [
            'kind' => $fate->kind->value,
            'outcome' => $fate->outcome->value,
            'from' => $fate->from?->value,
            'asOf' => Rfc3339::formatOrNull($fate->asOf),
        ] + ($fate->reason === null ? [] : ['reason' => $fate->reason->value]);
    }

    public static function readFate(Fields $f): KindFate
    {
        return new KindFate(
            $f->enum('kind', Kind::class),
            $f->enum('outcome', Outcome::class),
            $f->maybeEnum('from', Source::class),
            $f->maybeTime('asOf'),
            $f->maybeEnum('reason', KindReason::class),
        );
    }

    /** @return array<string, list<string>> */
    public static function losses(Losses $losses): array
    {
        return [
            'lost' => array_column($losses->lost, 'value'),
            'atRisk' => array_column($losses->atRisk, 'value'),
            'outOfDate' => array_column($losses->outOfDate, 'value'),
            'pairingLost' => $losses->pairingLost,
            'appsUnavailable' => $losses->appsUnavailable,
        ];
    }

    public static function readLosses(Fields $f): Losses
    {
        return new Losses(
            $f->enums('lost', Kind::class), $f->enums('atRisk', Kind::class), $f->enums('outOfDate', Kind::class),
            $f->strings('pairingLost'), $f->strings('appsUnavailable'),
        );
    }

    /** @return array<string, float> */
    public static function minutes(Minutes $m): array
    {
        return array_map(static fn (float $v): float => round($v, 1), [
            'low' => $m->low,
            'likely' => $m->likely,
            'high' => $m->high,
            'expected' => $m->expected,
            'deviation' => $m->deviation,
        ]);
    }

    /** @return array<string, mixed> */
    private static function leg(Leg $leg): array
    {
        return [
            'move' => $leg->move->value,
            'from' => ['version' => (string) $leg->fromVersion, 'build' => $leg->fromBuild],
            'to' => self::build($leg->to),
            'package' => [
                'fileName' => $leg->package->fileName,
                'bytes' => $leg->package->bytes,
                'sha256' => $leg->package->sha256,
            ],
            'startsAfterMinutes' => round($leg->startsAfterMinutes, 1),
            'windowEnds' => Rfc3339::formatOrNull($leg->windowEnds),
        ];
    }

    private static function readLeg(Fields $f): Leg
    {
        $package = $f->in('package');

        return new Leg(
            $f->enum('move', Move::class),
            $f->in('from')->version('version'),
            $f->in('from')->string('build'),
            self::readBuild($f->in('to')),
            new PackageName($package->string('fileName'), $package->int('bytes'), $package->string('sha256')),
            $f->float('startsAfterMinutes'),
            $f->maybeTime('windowEnds'),
        );
    }

    /** @return array<string, mixed> */
    private static function step(StepEstimate $step): array
    {
        return ['step' => $step->step, 'leg' => $step->leg, 'minutes' => self::minutes($step->minutes)];
    }

    private static function readStep(Fields $f): StepEstimate
    {
        return new StepEstimate($f->string('step'), $f->int('leg'), self::readMinutes($f->in('minutes')));
    }

    private static function readMinutes(Fields $f): Minutes
    {
        return Minutes::told(
            $f->float('low'),
            $f->float('likely'),
            $f->float('high'),
            $f->float('expected'),
            $f->float('deviation'),
        );
    }

    private static function readBase(?Fields $f): ?BaseUse
    {
        return $f === null ? null : new BaseUse(
            $f->maybeString('backup'),
            $f->enum('treatment', Treatment::class),
            $f->maybeVersion('declaredVersion'),
            $f->int('majorsDown'),
            $f->bool('unproven'),
        );
    }
}
