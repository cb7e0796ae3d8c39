<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Time\Rfc3339;

/** A person's word for one kind that comes back over the base, or for the cloud backup as a whole. */
final readonly class OverlayWord implements Kept
{
    /** @param  string  $what  a kind's code, or `cloud` */
    public function __construct(
        public string $what,
        public OverlayState $state,
        public string $by,
        public \DateTimeImmutable $at,
    ) {
    }

    public static function ofFields(Fields $fields): self
    {
        return new self(
            $fields->string('what'),
            $fields->enum('state', OverlayState::class),
            $fields->string('by'),
            $fields->time('at'),
        );
    }

    public function fields(): array
    {
        return [
            'what' => $this->what,
            'state' => $this->state->value,
            'by' => $this->by,
            'at' => Rfc3339::format($this->at),
        ];
    }
}
