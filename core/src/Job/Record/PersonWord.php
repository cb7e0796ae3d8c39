<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Time\Rfc3339;

/** That somebody said so, and when. */
final readonly class PersonWord implements Kept
{
    public function __construct(public string $by, public \DateTimeImmutable $at)
    {
    }

    public static function ofFields(Fields $fields): self
    {
        return new self($fields->string('by'), $fields->time('at'));
    }

    public function fields(): array
    {
        return ['by' => $this->by, 'at' => Rfc3339::format($this->at)];
    }
}
