<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** How one step of a job stands. */
final readonly class StepFact
{
    /**
     * @param  \DateTimeImmutable|null  $since  when it began to wait for its problem
     * @param  bool  $doNotDisturb  whether the device must be left alone while it runs
     * @param  bool  $tookHold  whether the device has taken in what the step gave it, so that it does not go away
     * @param  float|null  $secondsLeft  as the rate so far has it
     */
    public function __construct(
        public StepCode $code,
        public StepState $state,
        public int $leg = 0,
        public ?Problem $problem = null,
        public ?\DateTimeImmutable $since = null,
        public bool $doNotDisturb = false,
        public bool $tookHold = false,
        public ?Phase $phase = null,
        public ?float $secondsLeft = null,
    ) {
    }

    public function at(): StepAt
    {
        return new StepAt($this->code, $this->leg);
    }

    public function isDone(): bool
    {
        return $this->state === StepState::Done;
    }

    /** Whether it cannot go on by itself, or waits for something longer than is usual. */
    public function wantsHand(\DateTimeImmutable $now): bool
    {
        return match ($this->state) {
            StepState::NeedsHand, StepState::Failed => true,
            StepState::Ready, StepState::Running => $this->problem !== null && $this->hasWaited($now),
            StepState::Waiting, StepState::Done => false,
        };
    }

    /** Where it waits for its device to be plugged in again, or for a person, it is not to be left alone. */
    public function mustNotBeDisturbed(): bool
    {
        return $this->doNotDisturb && $this->problem === null && $this->state->isUnderWay();
    }

    private function hasWaited(\DateTimeImmutable $now): bool
    {
        $patience = $this->problem?->code->patienceSeconds() ?? 0;

        return $this->since === null || $now->getTimestamp() - $this->since->getTimestamp() >= $patience;
    }
}
