<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\Need;
use JadeStep\Core\Job\Sequence;
use JadeStep\Core\Job\StepAt;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Route\Leg;
use JadeStep\Core\Route\Minutes;
use JadeStep\Core\Route\Route;
use JadeStep\Core\Route\Situation;
use JadeStep\Core\Route\StepEstimate;

/** Makes the steps of a batch of a device's route: the planner's own, in the core's order, with the bench's times. */
final readonly class RouteSteps
{
    /**
     * @param  list<StepAt>  $done  steps that are behind it
     * @param  array<string, float>  $running  by step, as it is named, for how many minutes it runs
     */
    private function __construct(
        private Situation $situation,
        private Route $route,
        private array $done,
        private array $running,
    ) {
    }

    /**
     * A device on the best of its routes, with the others that cost no more.
     *
     * @param  non-empty-list<Route>  $routes  the best first
     * @param  int|null  $onPort  from 0
     * @param  list<StepAt>  $done
     * @param  array<string, float>  $running  minutes by "code leg"
     */
    public static function device(
        string $id,
        string $label,
        Situation $situation,
        array $routes,
        ?int $onPort = null,
        array $done = [],
        array $running = [],
    ): BatchDevice {
        $own = new self($situation, $routes[0], $done, $running);
        $steps = static fn (Route $route): array => (new self($situation, $route, $done, $running))->steps();

        return new BatchDevice($id, $label, $own->steps(), $routes[0]->id, $onPort, array_map(
            static fn (Route $r): OtherWay => new OtherWay($r->id, $steps($r), $r->trade),
            self::others($routes),
        ), $own->isDone(new StepAt(StepCode::BackUp)) ? 0 : $situation->diskForBackup());
    }

    /**
     * The routes beside the best one that cost no more data, pairing or app than it: a loss is no help.
     *
     * @param  list<Route>  $routes  the best first
     * @return list<Route>
     */
    private static function others(array $routes): array
    {
        $costs = static fn (Route $r): array => [
            ...array_column([...$r->losses->lost, ...$r->losses->atRisk], 'value'),
            ...$r->losses->pairingLost,
            ...$r->losses->appsUnavailable,
        ];

        return array_values(array_filter(
            array_slice($routes, 1),
            static fn (Route $r): bool => array_diff($costs($r), $costs($routes[0])) === [],
        ));
    }

    /** @return array<string, PackageFetch> what a route fetches, by the package's SHA-256 */
    public static function fetches(Situation $situation, Route $route): array
    {
        $fetches = [];
        foreach ($route->legs as $leg) {
            $fetches[$leg->package->sha256] = new PackageFetch(
                $leg->package->sha256,
                $situation->bench->link->minutesFor($leg->package->bytes),
                $leg->package->bytes,
            );
        }

        return $fetches;
    }

    /** @return list<BatchStep> */
    private function steps(): array
    {
        $sequence = Sequence::of(Intent::TakeDown, $this->route);
        $steps = [];
        $places = [];
        foreach ($this->inOrder($sequence) as $at) {
            $places[self::name($at)] = count($steps);
            $steps[] = $this->step($at, $this->placesBefore($sequence, $at, $places));
        }

        return $steps;
    }

    /** @return list<StepAt> those that are left, but for the fetch, which the batch does once for all */
    private function inOrder(Sequence $sequence): array
    {
        return array_values(array_filter(
            $sequence->steps,
            fn (StepAt $at): bool => $at->code !== StepCode::FetchPackage && ! $this->isDone($at),
        ));
    }

    private function isDone(StepAt $at): bool
    {
        return array_filter($this->done, static fn (StepAt $d): bool => $d->is($at)) !== [];
    }

    /**
     * @param  array<string, int>  $places
     * @return list<int>
     */
    private function placesBefore(Sequence $sequence, StepAt $at, array $places): array
    {
        $before = [];
        foreach ($sequence->before($at) as $one) {
            if (isset($places[self::name($one)])) {
                $before[] = $places[self::name($one)];
            }
        }

        return $before;
    }

    /** @param  list<int>  $after */
    private function step(StepAt $at, array $after): BatchStep
    {
        $runs = $this->running[self::name($at)] ?? null;
        $minutes = $this->minutes($at);

        return new BatchStep(
            $at->code->value,
            $at->leg,
            $runs === null ? $minutes : $minutes->leftAfter($runs),
            array_map(static fn (Need $n): string => $n->value, $at->code->needs()),
            $after,
            $at->code === StepCode::CrossLine ? $this->situation->device->lockDelayEndsAt : null,
            $at->code === StepCode::Install ? $this->route->leg($at->leg)->windowEnds : null,
            $at->code === StepCode::CrossLine ? $this->packages() : [],
            $runs !== null,
        );
    }

    /** @return list<string> */
    private function packages(): array
    {
        return array_map(static fn (Leg $l): string => $l->package->sha256, $this->route->legs);
    }

    /** What a route's plan gives no time of its own for takes what is usual (common practice, no source). */
    private function minutes(StepAt $at): Minutes
    {
        return match ($at->code) {
            StepCode::ChooseRoute => Minutes::of(1, 2, 5),
            StepCode::SealBackup, StepCode::LowerCopy, StepCode::BringIn => Minutes::of(0.1, 0.2, 1),
            StepCode::CrossLine => Minutes::of(0.5, 1, 3),
            StepCode::ProveSafety => $this->estimate(new StepAt(StepCode::VerifyBackup)),
            StepCode::Prove => Minutes::of(0.2, 0.5, 2),
            StepCode::HandOver => Minutes::of(1, 2, 4),
            StepCode::Pair,
            StepCode::BackUp,
            StepCode::VerifyBackup,
            StepCode::FetchPackage,
            StepCode::EnterRecovery,
            StepCode::Install,
            StepCode::Wake,
            StepCode::PutBack,
            StepCode::SetUp => $this->estimate($at),
        };
    }

    private function estimate(StepAt $at): Minutes
    {
        $told = array_filter(
            $this->route->steps,
            static fn (StepEstimate $s): bool => $s->step === $at->code->value && $s->leg === $at->leg,
        );

        return array_values($told)[0]->minutes ?? Minutes::none();
    }

    public static function name(StepAt $at): string
    {
        return "{$at->code->value} {$at->leg}";
    }
}
