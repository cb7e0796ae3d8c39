<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

use JadeStep\Core\Route\Route;

/** Which steps a job has, and in which order. */
final readonly class Sequence
{
    /** What each step comes after. A step that a job does not have is passed over to what it comes after itself. */
    private const AFTER = [
        'pair' => [],
        'choose-route' => [StepCode::Pair],
        'back-up' => [StepCode::ChooseRoute],
        'verify-backup' => [StepCode::BackUp],
        'seal-backup' => [StepCode::VerifyBackup],
        'fetch-package' => [StepCode::ChooseRoute],
        'cross-line' => [StepCode::SealBackup, StepCode::FetchPackage],
        'prove-safety' => [StepCode::CrossLine],
        'enter-recovery' => [StepCode::ProveSafety, StepCode::FetchPackage],
        'install' => [StepCode::EnterRecovery],
        'wake' => [StepCode::Install],
        'lower-copy' => [StepCode::Wake],
        'put-back' => [StepCode::LowerCopy],
        'set-up' => [StepCode::PutBack],
        'bring-in' => [StepCode::SetUp],
        'prove' => [StepCode::BringIn],
        'hand-over' => [StepCode::Prove],
    ];

    /** What a route does not change. */
    public const UP_TO_LINE = [
        StepCode::Pair, StepCode::ChooseRoute, ...self::OF_BACKUP,
        StepCode::FetchPackage, StepCode::CrossLine, StepCode::ProveSafety,
    ];

    private const OF_A_LEG = [StepCode::EnterRecovery, StepCode::Install, StepCode::Wake];

    /** From the first byte of a backup to its seal. */
    public const OF_BACKUP = [StepCode::BackUp, StepCode::VerifyBackup, StepCode::SealBackup];

    /** From putting the data back to the proof. */
    public const OF_RETURN = [
        StepCode::LowerCopy,
        StepCode::PutBack,
        StepCode::SetUp,
        StepCode::BringIn,
        StepCode::Prove,
    ];

    /** @param  list<StepAt>  $steps */
    private function __construct(public array $steps)
    {
    }

    /**
     * @param  Route|null  $route  null where none is taken yet: one leg that erases stands in for it
     * @param  bool  $nightly  whether the bench backs up by itself: what is thinned by the keep rules is not sealed
     */
    public static function of(Intent $intent, ?Route $route, bool $nightly = false): self
    {
        return new self(match ($intent) {
            Intent::BackUpOnly => self::once([
                StepCode::Pair,
                ...$nightly ? [StepCode::BackUp, StepCode::VerifyBackup] : self::OF_BACKUP,
            ]),
            Intent::ReturnOnly => self::once([StepCode::Pair, ...self::OF_RETURN, StepCode::HandOver]),
            Intent::TakeDown, Intent::TakeUp => [...self::once(self::UP_TO_LINE), ...self::fromLineOn($route)],
        });
    }

    /** @param  list<StepAt>  $steps  those that a job has */
    public static function ofSteps(array $steps): self
    {
        return new self($steps);
    }

    /** @return list<StepAt> */
    public static function fromLineOn(?Route $route): array
    {
        $steps = [];
        for ($leg = 0; $leg < ($route === null ? 1 : count($route->legs)); $leg++) {
            array_push($steps, ...array_map(static fn (StepCode $c): StepAt => new StepAt($c, $leg), self::OF_A_LEG));
        }
        $returns = $route === null || $route->hasReturn();

        return [
            ...$steps,
            ...self::once($returns ? [...self::OF_RETURN, StepCode::HandOver] : [StepCode::Prove, StepCode::HandOver]),
        ];
    }

    /**
     * Within a leg the leg's own steps come before each other, a leg comes after the one before it, and what follows
     * the legs comes after the last.
     *
     * @return list<StepAt> what has to be done before the step may begin
     */
    public function before(StepAt $step): array
    {
        if ($step->code === StepCode::EnterRecovery && $step->leg > 0) {
            return [new StepAt(StepCode::Wake, $step->leg - 1)];
        }
        $leg = $step->code->isOfLeg()
            ? $step->leg
            : max([0, ...array_map(static fn (StepAt $s): int => $s->leg, $this->steps)]);

        return array_map(
            static fn (StepCode $c): StepAt => new StepAt($c, $c->isOfLeg() ? $leg : 0),
            $this->codesBefore($step->code),
        );
    }

    public function has(StepCode $code): bool
    {
        return in_array($code, array_map(static fn (StepAt $s): StepCode => $s->code, $this->steps), true);
    }

    /** @return list<StepCode> */
    private function codesBefore(StepCode $code): array
    {
        $known = array_map(
            fn (StepCode $c): array => $this->has($c) ? [$c] : $this->codesBefore($c),
            self::AFTER[$code->value],
        );

        return array_values(array_unique(array_merge([], ...$known), SORT_REGULAR));
    }

    /**
     * @param  list<StepCode>  $codes
     * @return list<StepAt>
     */
    private static function once(array $codes): array
    {
        return array_map(static fn (StepCode $c): StepAt => new StepAt($c), $codes);
    }
}
