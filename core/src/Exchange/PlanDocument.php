<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\CheckState;
use JadeStep\Core\Route\Plan;
use JadeStep\Core\Route\Reason;
use JadeStep\Core\Route\ReasonCode;
use JadeStep\Core\Route\Rejection;

/**
 * `jade-step/plan` documents.
 *
 * @implements Document<Plan>
 */
final class PlanDocument implements Document
{
    public static function write(object $value): array
    {
        return [
            'format' => 'jade-step/plan',
            'formatVersion' => 1,
            'verdict' => $value->isReachable() ? 'reachable' : 'blocked',
            'routes' => array_map(RouteDocument::write(...), $value->routes),
            'rejected' => array_map(self::rejection(...), $value->rejected),
            'nearest' => $value->nearest === null ? null : RouteDocument::build($value->nearest),
            'checks' => self::checks($value->checks),
        ];
    }

    public static function read(Fields $document): Plan
    {
        $nearest = $document->maybeIn('nearest');

        return new Plan(
            $document->each('routes', RouteDocument::read(...)),
            $document->each('rejected', self::readRejection(...)),
            $nearest === null ? null : RouteDocument::readBuild($nearest),
            $document->each('checks', CheckDocument::read(...)),
        );
    }

    /**
     * What does not apply is not shown.
     *
     * @param  list<Check>  $checks
     * @return list<array<string, mixed>>
     */
    public static function checks(array $checks): array
    {
        $applying = array_filter($checks, static fn (Check $c): bool => $c->state !== CheckState::DoesNotApply);

        return array_map(CheckDocument::write(...), array_values($applying));
    }

    /** @return array<string, mixed> */
    private static function rejection(Rejection $rejection): array
    {
        return RouteDocument::build($rejection->build) + [
            'reasons' => array_map(self::reason(...), $rejection->reasons),
        ];
    }

    private static function readRejection(Fields $f): Rejection
    {
        return new Rejection(RouteDocument::readBuild($f), $f->each('reasons', self::readReason(...)));
    }

    /** @return array<string, mixed> */
    private static function reason(Reason $reason): array
    {
        return ['code' => $reason->code->value] + $reason->facts;
    }

    private static function readReason(Fields $f): Reason
    {
        $facts = [];
        foreach ($f->keys() as $name) {
            if ($name !== 'code') {
                $facts[$name] = $f->fact($name);
            }
        }

        return Reason::of($f->enum('code', ReasonCode::class), $facts);
    }
}
