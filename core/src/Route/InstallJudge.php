<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Catalogue;
use JadeStep\Core\Almanac\Model;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Almanac\SigningWindow;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Question;
use JadeStep\Core\Version\Version;

/**
 * May this build be installed on this device at this moment, and by which moves? Every reason against it, not the
 * first. What a device runs, and when, are given with each question, since both change along a route.
 */
final readonly class InstallJudge
{
    private bool $stale;

    /** @param  \DateTimeImmutable  $now the moment of planning, which the almanac's age is held against */
    public function __construct(
        private Almanac $almanac,
        private Device $device,
        private ?Version $hostAgent,
        ?Catalogue $catalogue,
        \DateTimeImmutable $now,
    ) {
        $this->stale = $catalogue?->isStaleAt($now) === true;
    }

    /**
     * Every reason why no move reaches the build from what is installed; empty where one does.
     *
     * @return list<Reason>
     */
    public function reasons(Build $build, Installed $from, \DateTimeImmutable $moment): array
    {
        $every = $this->everyMove($build, $from, $moment);

        $reasons =
            $every === [] && $this->moves($build, $from) !== [] ? [] : [...$every, ...$this->ofMoves($build, $from)];
        usort(
            $reasons,
            static fn (Reason $a, Reason $b): int => array_search($a->code, ReasonCode::cases(), true)
                <=> array_search($b->code, ReasonCode::cases(), true),
        );

        return $reasons;
    }

    /** @return list<Reason> what holds whatever the move is */
    private function everyMove(Build $build, Installed $from, \DateTimeImmutable $moment): array
    {
        return [...$this->always($build), ...$this->window($build, $moment), ...$this->ofState($build, $from)];
    }

    /** @return list<Reason> what neither the moment nor the state of the device changes */
    public function always(Build $build): array
    {
        return [
            ...$this->model($build),
            ...($this->stale ? [Reason::of(ReasonCode::AlmanacStale)] : []),
            ...$this->radio($build),
            ...$this->hostAgent($build),
        ];
    }

    /** @return list<Reason> */
    public function ofState(Build $build, Installed $from): array
    {
        $floor = $from->rollbackCounter !== null && $build->rollbackIndex < $from->rollbackCounter;

        return [
            ...$floor
                ? [
                    Reason::of(ReasonCode::RollbackFloor, [
                        'index' => $build->rollbackIndex,
                        'counter' => (int) $from->rollbackCounter,
                    ]),
                ]
                : [],
            ...$from->runs($build) ? [Reason::of(ReasonCode::SameBuild)] : [],
        ];
    }

    /** @return list<Move> the moves that the build's own rules allow from what is installed */
    public function moves(Build $build, Installed $from): array
    {
        if (! $from->bootable) {
            return $build->eraseInstall ? [Move::EraseInstall] : [];
        }
        $higher = $build->version->compare($from->version);
        $stepDown =
            $higher < 0
            && $build->version->major === $from->version->major
            && $build->stepDownFrom?->contains($from->version) === true;

        return [
            ...($build->eraseInstall ? [Move::EraseInstall] : []),
            ...($higher > 0 && $build->inPlaceFrom?->contains($from->version) === true ? [Move::InPlaceUpdate] : []),
            ...($stepDown ? [Move::InPlaceStepDown] : []),
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
            ...($build->eraseInstall ? [] : [ReasonCode::InPlaceOnly]),
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

        return $build->packageFor($this->device->hardwareId) === null ? [Reason::of(ReasonCode::WrongModel)] : [];
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
     * Where no package is for this device there is no window to speak of. Between two windows, and where the vendor
     * never signed the package at all, it counts as closed.
     *
     * @return list<Reason>
     */
    private function window(Build $build, \DateTimeImmutable $moment): array
    {
        $package = $this->device->hardwareId === null ? null : $build->packageFor($this->device->hardwareId);
        if ($package === null || $package->windowAt($moment) !== null) {
            return [];
        }
        $ended = array_filter($package->signing, static fn (SigningWindow $w): bool => $w->hasEndedBy($moment));
        if ($ended !== []) {
            return [
                Reason::windowClosed(
                    max(array_map(static fn (SigningWindow $w): \DateTimeImmutable => $w->until ?? $moment, $ended)),
                ),
            ];
        }

        return $package->signing === []
            ? [Reason::of(ReasonCode::WindowClosed)]
            : [Reason::windowNotOpenYet(self::firstStart($package))];
    }

    private static function firstStart(Package $package): \DateTimeImmutable
    {
        $starts = array_map(static fn (SigningWindow $w): \DateTimeImmutable => $w->from, $package->signing);

        return $starts === [] ? throw new \LogicException('A package without windows has no first one.') : min($starts);
    }

    /** @return list<Reason> */
    private function radio(Build $build): array
    {
        return $this->device->radioMinimum !== null && $build->radioLevel < $this->device->radioMinimum
            ? [
                Reason::of(ReasonCode::RadioMismatch, [
                    'level' => $build->radioLevel,
                    'minimum' => $this->device->radioMinimum,
                ]),
            ]
            : [];
    }

    /** @return list<Reason> */
    private function hostAgent(Build $build): array
    {
        if (
            $build->hostAgentMinimum === null
            || ($this->hostAgent !== null && $build->hostAgentMinimum->isAtMost($this->hostAgent))
        ) {
            return [];
        }

        return [Reason::of(ReasonCode::HostAgentOld, ['minimum' => (string) $build->hostAgentMinimum])];
    }
}
