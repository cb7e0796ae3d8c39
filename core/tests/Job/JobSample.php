<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Job;

use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Job\Facts;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\Job;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\OwnBag;
use JadeStep\Core\Job\Position;
use JadeStep\Core\Job\Sequence;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepFact;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Job\WayBack\TheReturn;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Readiness\CheckState;
use JadeStep\Core\Route\Plan;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Route\Route;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;

/** One crossing of the ferry company's Fenn 7, from 9.3 to 8.7 by erasing, at each of its positions. */
final class JobSample
{
    public const BAG = 'SKL-0042-own';

    /** The step that stands at each position, and how. Everything before it is done, everything after it waits. */
    private const STANDING = [
        'identifying' => [StepCode::Pair, StepState::Running],
        'choosing' => [StepCode::ChooseRoute, StepState::NeedsHand],
        'safeguarding' => [StepCode::VerifyBackup, StepState::Running],
        'at-the-line' => [StepCode::CrossLine, StepState::NeedsHand],
        'proving' => [StepCode::ProveSafety, StepState::Running],
        'line-open' => [StepCode::EnterRecovery, StepState::Ready],
        'installing' => [StepCode::Install, StepState::Running],
        'broken' => [StepCode::Install, StepState::Failed],
        'looking-first' => [StepCode::LowerCopy, StepState::NeedsHand],
        'returning' => [StepCode::PutBack, StepState::Running],
        'compared' => [StepCode::HandOver, StepState::NeedsHand],
        'ended' => [StepCode::HandOver, StepState::Done],
    ];

    /** @param  array<string, mixed>  $more  facts that a test changes, by parameter */
    public static function at(Position $position, array $more = []): Job
    {
        return Job::of(self::facts($position, $more));
    }

    /** @param  array<string, mixed>  $more */
    public static function facts(Position $position, array $more = []): Facts
    {
        $route = $position->isBefore(Position::Safeguarding) ? null : self::route();
        $held = $position === Position::LookingFirst;

        return new Facts(
            ...$more + [
                'intent' => Intent::TakeDown,
                'state' => $position === Position::Ended ? JobState::Done : JobState::Open,
                'now' => Rfc3339::parse(Sample::NOW),
                'device' => $position === Position::Identifying
                        ? null
                        : Sample::read(Sample::situation(['kinds' => [Sample::stock('photos')]]))->device,
                'plan' => $position === Position::Identifying ? null : self::plan(),
                'route' => $route,
                'return' => $route === null ? null : TheReturn::of($route, null, null, $held),
                'steps' => self::steps(...self::STANDING[$position->value]),
                'lineCrossed' => ! $position->isBefore(Position::LineOpen),
                'installBegun' => ! $position->isBefore(Position::Installing),
                'eraseBegun' => ! $position->isBefore(Position::Installing),
                'checks' => self::checks(),
                'bag' => $position->isBefore(Position::Safeguarding)
                    ? null
                    : new OwnBag(self::BAG, BagState::Sealed, false),
                'endedAt' => $position === Position::Ended ? Rfc3339::parse(Sample::NOW) : null,
            ],
        );
    }

    public static function plan(): Plan
    {
        $open = ['2026-05-04T17:00:00Z', null];
        $almanac = Sample::almanac(
            Sample::catalogue([Sample::build('8.7.0', '8G210', [$open]), Sample::build('9.3.0', '9D55', [$open])]),
        );

        return (new Planner($almanac))->plan(Sample::read(Sample::situation(['kinds' => [Sample::stock('photos')]])));
    }

    public static function route(): Route
    {
        return self::plan()->routes[0];
    }

    /** @return list<StepFact> */
    public static function steps(
        StepCode $standing,
        StepState $state,
        ?StepFact $instead = null,
        Intent $intent = Intent::TakeDown,
    ): array {
        $facts = [];
        $passed = false;
        foreach (Sequence::of($intent, null)->steps as $at) {
            $passed = $passed || $at->code === $standing;
            $facts[] = match (true) {
                $at->code === $standing => $instead ?? new StepFact($at->code, $state, $at->leg),
                default => new StepFact($at->code, $passed ? StepState::Waiting : StepState::Done, $at->leg),
            };
        }

        return $facts;
    }

    /** @return list<Check> all that the line wants, passed but for those that are named */
    public static function checks(CheckCode ...$failing): array
    {
        return array_map(
            static fn (CheckCode $c): Check => Check::of(
                $c,
                in_array($c, $failing, true) ? CheckState::Fail : CheckState::Pass,
            ),
            CheckCode::cases(),
        );
    }
}
