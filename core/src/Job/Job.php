<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

use JadeStep\Core\Job\Internal\ActRules;
use JadeStep\Core\Job\Internal\NextHand;
use JadeStep\Core\Job\Internal\Resting;
use JadeStep\Core\Job\WayBack\PutNothingBack;

/**
 * What a job is: where it stands, which acts are open and why the others are not, what it rests on, whose hand is
 * wanted next, and what is said of it at the end. All of it is worked out from facts, here and nowhere else.
 */
final readonly class Job
{
    private function __construct(public Facts $facts)
    {
    }

    public static function of(Facts $facts): self
    {
        return new self($facts);
    }

    public function position(): Position
    {
        return $this->facts->state === JobState::Open ? $this->standing() : Position::Ended;
    }

    /** The stage at which a job was left or given back; null where it goes on, or came to its end. */
    public function leftAt(): ?Stage
    {
        return in_array($this->facts->state, [JobState::Abandoned, JobState::Unfinished], true)
            ? $this->standing()->stage()
            : null;
    }

    private function standing(): Position
    {
        $f = $this->facts;

        return match (true) {
            ! $this->isDone(StepCode::Pair) => Position::Identifying,
            ! $f->intent->crosses() => $this->withoutCrossing(),
            $f->installBegun => $this->pastTheInstall(),
            $f->route === null => Position::Choosing,
            $f->lineCrossed => Position::LineOpen,
            $this->isDone(StepCode::CrossLine) => Position::Proving,
            $this->step(StepCode::CrossLine)?->state === StepState::NeedsHand => Position::AtTheLine,
            default => Position::Safeguarding,
        };
    }

    public function may(Act $act): May
    {
        return (new ActRules($this))->may($act);
    }

    /** @return array<string, May> every act, by its code */
    public function acts(): array
    {
        $all = [];
        foreach (Act::cases() as $act) {
            $all[$act->value] = $this->may($act);
        }

        return $all;
    }

    public function restsOn(): Holdings
    {
        return Resting::of($this);
    }

    public function now(): Hand
    {
        return (new NextHand($this))->hand();
    }

    public function verdict(): Verdict
    {
        return $this->facts->verdict ?? Verdict::notYet();
    }

    public function sequence(): Sequence
    {
        return Sequence::ofSteps(array_map(static fn (StepFact $s): StepAt => $s->at(), $this->facts->steps));
    }

    /** The step of a code; of those of several legs the first that is not done, or the last. */
    public function step(StepCode $code): ?StepFact
    {
        $last = null;
        foreach ($this->facts->steps as $step) {
            $last = $step->code === $code ? $step : $last;
            if ($step->code === $code && ! $step->isDone()) {
                return $step;
            }
        }

        return $last;
    }

    /** Whether a step, in all its legs, is done. */
    public function isDone(StepCode $code): bool
    {
        return $this->step($code)?->isDone() === true;
    }

    /**
     * @param  list<StepCode>  $among
     * @return StepFact|null the first of them that failed
     */
    public function failed(array $among = []): ?StepFact
    {
        foreach ($this->facts->steps as $step) {
            if ($step->state === StepState::Failed && ($among === [] || in_array($step->code, $among, true))) {
                return $step;
            }
        }

        return null;
    }

    /** Whether the device must be left alone at this moment. */
    public function mustNotBeDisturbed(): bool
    {
        return array_filter($this->facts->steps, static fn (StepFact $s): bool => $s->mustNotBeDisturbed()) !== [];
    }

    /** What of it can still be undone, in a sentence. */
    public function undoWords(): string
    {
        $f = $this->facts;

        return match (true) {
            $f->intent === Intent::BackUpOnly => 'This job changes nothing on the device.',
            $f->intent === Intent::ReturnOnly && $this->hasWritten() => 'The device has taken data in. The backup '
                .'stays as it was taken.',
            $f->intent === Intent::ReturnOnly => 'Nothing has been put on the device yet: it can still be left as '
                .'it is.',
            $f->installBegun && $f->eraseBegun => 'Past the erase line: only forward. The data is in the sealed copy.',
            $f->installBegun => 'The install has begun: only forward. The data stays on the device, and is in the '
                .'sealed copy.',
            $f->lineCrossed => 'The line is open, and nothing has been written yet: it can still be left.',
            default => 'Before the erase line: everything can still be undone.',
        };
    }

    /** Whether the device is not any more as this job found it. */
    public function hasWritten(): bool
    {
        $step = $this->step(StepCode::PutBack);
        $took = $step !== null && ($step->isDone() || $step->tookHold);
        $way = $this->facts->return?->way;

        return $this->facts->installBegun || ($took && $way !== null && ! $way instanceof PutNothingBack);
    }

    /** Whether the device has taken a backup in: what it holds then does not go away by choosing otherwise. */
    public function tookDataIn(): bool
    {
        $step = $this->step(StepCode::PutBack);

        return $step !== null && ($step->isDone() || $step->tookHold) && $this->facts->return?->way->bag() !== null;
    }

    private function withoutCrossing(): Position
    {
        return $this->facts->intent === Intent::BackUpOnly ? Position::Safeguarding : $this->ofReturn();
    }

    private function pastTheInstall(): Position
    {
        $broken = $this->failed([StepCode::FetchPackage, StepCode::EnterRecovery, StepCode::Install, StepCode::Wake]);

        return match (true) {
            $broken !== null => Position::Broken,
            ! $this->isDone(StepCode::Wake) => Position::Installing,
            default => $this->ofReturn(),
        };
    }

    private function ofReturn(): Position
    {
        return match (true) {
            $this->isDone(StepCode::Prove) => Position::Compared,
            $this->facts->return?->held === true
                && ! $this->isDone(StepCode::LowerCopy)
                && $this->step(StepCode::LowerCopy) !== null => Position::LookingFirst,
            default => Position::Returning,
        };
    }
}
