<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** The next hand: who is wanted, for what, and with which act; or what runs, where nobody is. */
final readonly class Hand
{
    /**
     * @param  string  $what  in a few words
     * @param  string  $why  in a sentence or two, with what to do
     * @param  Act|null  $act  which leads on from here; null where it is done at the device, or nothing is wanted
     * @param  StepAt|null  $step  which it is about
     * @param  \DateTimeImmutable|null  $since  when it began to be wanted
     * @param  \DateTimeImmutable|null  $by  the latest moment for it that still meets a window, where one is known
     * @param  bool  $doNotDisturb  whether the device must be left alone meanwhile
     */
    public function __construct(
        public Who $who,
        public string $what,
        public string $why = '',
        public ?Act $act = null,
        public ?StepAt $step = null,
        public ?\DateTimeImmutable $since = null,
        public ?\DateTimeImmutable $by = null,
        public bool $doNotDisturb = false,
    ) {
    }

    public function isWanted(): bool
    {
        return $this->who !== Who::Nobody;
    }
}
