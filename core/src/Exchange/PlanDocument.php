<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Route\Base;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Route\Leg;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Route\Minutes;
use JadeStep\Core\Route\Plan;
use JadeStep\Core\Route\Reason;
use JadeStep\Core\Route\Rejection;
use JadeStep\Core\Route\Route;
use JadeStep\Core\Time\Rfc3339;

/** Writes `jade-step/plan` documents. Minutes are rounded to one decimal. */
final class PlanDocument
{
    /** @return array<string, mixed> ready for json_encode */
    public static function of(Plan $plan): array
    {
        return [
            'format' => 'jade-step/plan',
            'formatVersion' => 1,
            'verdict' => $plan->isReachable() ? 'reachable' : 'blocked',
            'routes' => array_map(self::route(...), $plan->routes),
            'rejected' => array_map(static fn (Rejection $r): array => self::build($r->build) + ['reasons' => array_map(self::reason(...), $r->reasons)], $plan->rejected),
            'nearest' => $plan->nearest === null ? null : self::build($plan->nearest),
            'checks' => array_map(self::check(...), $plan->checks),
        ];
    }

    /** @return array<string, string> */
    public static function check(Check $check): array
    {
        return [
            'code' => $check->code->value, 'state' => $check->state->value, 'blocks' => $check->code->blocks()->value,
            'mend' => $check->mend(), 'evidence' => $check->evidence,
        ];
    }

    /** @return array<string, string> */
    private static function build(Build $build): array
    {
        return ['version' => (string) $build->version, 'build' => $build->build, 'channel' => $build->channel->value];
    }

    /** @return array<string, mixed> */
    private static function reason(Reason $reason): array
    {
        return ['code' => $reason->code->value] + $reason->facts;
    }

    /** @return array<string, mixed> */
    private static function route(Route $route): array
    {
        return [
            'id' => $route->id,
            'legs' => array_map(self::leg(...), $route->legs),
            'erases' => $route->erases(),
            'fetchBytes' => $route->fetchBytes,
            'diskPeakBytes' => $route->diskPeakBytes,
            'minutes' => self::minutes($route->minutes),
            'steps' => array_map(static fn (array $s): array => ['step' => $s['step'], 'leg' => $s['leg'], 'minutes' => self::minutes($s['minutes'])], $route->steps),
            'latestStart' => Rfc3339::formatOrNull($route->latestStart()),
            'base' => $route->base === null ? null : self::base($route->base),
            'kinds' => array_map(self::fate(...), $route->kinds),
            'losses' => self::losses($route->losses),
            'trade' => $route->trade,
        ];
    }

    /** @return array<string, mixed> */
    private static function leg(Leg $leg): array
    {
        return [
            'move' => $leg->move->value,
            'from' => ['version' => (string) $leg->fromVersion, 'build' => $leg->fromBuild],
            'to' => self::build($leg->to),
            'package' => ['fileName' => $leg->package->fileName, 'bytes' => $leg->package->bytes, 'sha256' => $leg->package->sha256],
            'startsAfterMinutes' => round($leg->before->expected, 1),
            'windowEnds' => Rfc3339::formatOrNull($leg->windowEnds),
        ];
    }

    /** @return array<string, float> */
    private static function minutes(Minutes $m): array
    {
        return array_map(
            static fn (float $v): float => round($v, 1),
            ['low' => $m->low, 'likely' => $m->likely, 'high' => $m->high, 'expected' => $m->expected, 'deviation' => $m->deviation],
        );
    }

    /** @return array<string, mixed> */
    public static function base(Base $base): array
    {
        return [
            'backup' => $base->backup,
            'treatment' => $base->treatment->value,
            'declaredVersion' => $base->declaredVersion === null ? null : (string) $base->declaredVersion,
            'majorsDown' => $base->majorsDown,
            'unproven' => $base->isUnproven(),
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

    /** @return array<string, list<string>> */
    public static function losses(Losses $losses): array
    {
        $codes = static fn (array $kinds): array => array_map(static fn (Kind $k): string => $k->value, $kinds);

        return [
            'lost' => $codes($losses->lost), 'atRisk' => $codes($losses->atRisk), 'outOfDate' => $codes($losses->outOfDate),
            'pairingLost' => array_column($losses->pairingLost, 'id'),
            'appsUnavailable' => array_column($losses->appsUnavailable, 'id'),
        ];
    }
}
