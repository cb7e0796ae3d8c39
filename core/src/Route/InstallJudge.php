<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Model;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Almanac\SigningWindow;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Question;

/**
 * May this build be installed on this device, and by which moves? Every reason against it, not the first. What the
 * device runs is given with each question, since it changes along a route.
 */
final readonly class InstallJudge
{
    private Device $device;

    /** @param  Timetable  $times  which tells when the permit of a route's first leg is asked for */
    public function __construct(
        private Almanac $almanac,
        private Situation $situation,
        private Timetable $times,
    ) {
        $this->device = $situation->device;
    }

    /**
     * Every reason why no move reaches the build from what is installed; empty where one does. That it is signed for
     * in-place moves only is told in any case.
     *
     * @return list<Reason>
     */
    public function reasons(Build $build, Installed $from): array
    {
        $every = $this->everyMove($build, $from);
        $isReached = $every === [] && Move::open($build, $from) !== [];
        $reasons = [
            ...$every,
            ...$isReached ? [] : $this->ofMoves($build, $from),
            ...$build->eraseInstall ? [] : [Reason::of(ReasonCode::InPlaceOnly)],
        ];
        usort(
            $reasons,
            static fn (Reason $a, Reason $b): int => array_search($a->code, ReasonCode::cases(), true)
                <=> array_search($b->code, ReasonCode::cases(), true),
        );

        return $reasons;
    }

    /** @return list<Reason> what holds whatever the move is */
    private function everyMove(Build $build, Installed $from): array
    {
        return [...$this->always($build), ...$this->window($build), ...$this->ofState($build, $from)];
    }

    /** @return list<Reason> what neither the moment nor the state of the device changes */
    public function always(Build $build): array
    {
        return [
            ...$this->model($build),
            ...$build->isStaleFor($this->device->hardwareId, $this->situation->now)
                ? [Reason::of(ReasonCode::AlmanacStale)]
                : [],
            ...$this->radio($build),
            ...$this->hostAgent($build),
        ];
    }

    /** @return list<Reason> */
    public function ofState(Build $build, Installed $from): array
    {
        return [
            ...Fit::isBelowCounter($build, $from)
                ? [
                    Reason::of(ReasonCode::RollbackFloor, [
                        'index' => $build->rollbackIndex,
                        'counter' => $from->rollbackCounter,
                    ]),
                ]
                : [],
            ...$from->runs($build) ? [Reason::of(ReasonCode::SameBuild)] : [],
        ];
    }

    /**
     * The reasons of the single moves, each given only where the build offers that move or offers no other.
     *
     * @return list<Reason>
     */
    private function ofMoves(Build $build, Installed $from): array
    {
        $none = ! $build->eraseInstall && $build->inPlaceFrom === null && $build->stepDownFrom === null;
        $codes = [
            ...($build->inPlaceFrom !== null || $none ? self::againstUpdate($build, $from) : []),
            ...($build->stepDownFrom !== null || $none ? self::againstStepDown($build, $from) : []),
        ];

        return array_map(static fn (ReasonCode $c): Reason => Reason::of($c), $codes);
    }

    /** @return list<ReasonCode> */
    private static function againstUpdate(Build $build, Installed $from): array
    {
        return [
            ...($build->version->isAbove($from->version) ? [] : [ReasonCode::NotNewer]),
            ...($build->inPlaceFrom?->contains($from->version) === true ? [] : [ReasonCode::NotAcceptedInPlace]),
        ];
    }

    /** @return list<ReasonCode> */
    private static function againstStepDown(Build $build, Installed $from): array
    {
        return [
            ...($build->version->major === $from->version->major ? [] : [ReasonCode::MajorStepInPlace]),
            ...($build->stepDownFrom?->contains($from->version) === true ? [] : [ReasonCode::NotAcceptedStepDown]),
        ];
    }

    /** @return list<Reason> */
    private function model(Build $build): array
    {
        if ($this->device->hardwareId === null) {
            return [$this->unresolved()];
        }

        return $build->packagesFor($this->device->hardwareId) === [] ? [Reason::of(ReasonCode::WrongModel)] : [];
    }

    /** Lists the variants that fit, and names the question that tells most of them apart. */
    private function unresolved(): Reason
    {
        $known = $this->device->identity;
        $fits = static fn (Model $m): bool => $known->candidates === null
            || in_array($m->hardwareId, $known->candidates, true);
        $models = array_values(array_filter($this->almanac->modelsNamed($this->device->modelName), $fits));
        $questions = Question::rank($models, $known->answered);

        return Reason::of(ReasonCode::ModelUnresolved, [
            'hardwareIds' => array_map(static fn (Model $m): string => $m->hardwareId, $models),
            'question' => ($questions[0] ?? Question::PlugIn)->value,
        ]);
    }

    /**
     * Held against the moment at which the permit can be asked for, where the build is the only leg. Where no package
     * is for this device there is no window to speak of. Between two windows, and where the vendor never signed the
     * package at all, it counts as closed.
     *
     * @return list<Reason>
     */
    private function window(Build $build): array
    {
        $packages =
            $this->device->hardwareId === null
                ? []
                : $build->knownPackagesFor($this->device->hardwareId, $this->situation->now);
        foreach ($packages as $package) {
            $permit = $this->situation->after($this->times->untilPermit(0, $this->times->fetch($package)));
            if ($package->windowAt($permit) !== null) {
                return [];
            }
        }
        $windows = array_merge(...array_map(static fn (Package $p): array => $p->windows, $packages));

        return $packages === [] ? [] : [self::notSigned($windows, $this->situation->begins())];
    }

    /** @param  list<SigningWindow>  $windows  none of which holds when a permit can be asked for */
    private static function notSigned(array $windows, \DateTimeImmutable $begins): Reason
    {
        $closing = array_filter($windows, static fn (SigningWindow $w): bool => $w->holds($begins));
        if ($closing !== []) {
            return Reason::closesTooSoon(self::latestEnd($closing, $begins));
        }
        $ended = array_filter($windows, static fn (SigningWindow $w): bool => $w->hasEndedBy($begins));
        if ($ended !== []) {
            return Reason::windowClosed(self::latestEnd($ended, $begins));
        }
        $starts = array_map(static fn (SigningWindow $w): \DateTimeImmutable => $w->from, $windows);

        return $starts === [] ? Reason::of(ReasonCode::WindowClosed) : Reason::windowNotOpenYet(min($starts));
    }

    /** @param  non-empty-array<SigningWindow>  $windows  each with an end */
    private static function latestEnd(array $windows, \DateTimeImmutable $else): \DateTimeImmutable
    {
        return max(array_map(static fn (SigningWindow $w): \DateTimeImmutable => $w->until ?? $else, $windows));
    }

    /** @return list<Reason> */
    private function radio(Build $build): array
    {
        return Fit::isBelowRadio($build, $this->device)
            ? [
                Reason::of(ReasonCode::RadioMismatch, [
                    'level' => $build->radioLevel,
                    'minimum' => $this->device->radioMinimum,
                ]),
            ]
            : [];
    }

    /** @return list<Reason> none where this bench's host agent is not known: a readiness check speaks of that */
    private function hostAgent(Build $build): array
    {
        $agent = $this->situation->bench->hostAgent;

        return $build->hostAgentMinimum !== null && $agent !== null && $agent->isBelow($build->hostAgentMinimum)
            ? [Reason::of(ReasonCode::HostAgentOld, ['minimum' => (string) $build->hostAgentMinimum])]
            : [];
    }
}
