<?php

declare(strict_types=1);

namespace JadeStep\Core\Aftercare;

/** One thing of the aftercare, with its state and what it is about by name. */
final readonly class AftercareItem
{
    /** @param  list<string>  $names  apps, accessories, bags: what it is about */
    public function __construct(
        public AftercareCode $code,
        public AftercareState $state,
        public array $names = [],
        public ?string $by = null,
        public ?\DateTimeImmutable $at = null,
    ) {
    }

    /** A person's word counts where the device does not show that it is so. */
    public function attested(string $by, \DateTimeImmutable $at): self
    {
        return $this->state === AftercareState::Open
            ? new self($this->code, AftercareState::Attested, $this->names, $by, $at)
            : $this;
    }
}
