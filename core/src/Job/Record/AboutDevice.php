<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;

/** What people note of a device beside what it tells: whose it is, how they are reached, what its box says. */
final readonly class AboutDevice implements Kept
{
    public function __construct(
        public string $holder = '',
        public string $contact = '',
        public string $notes = '',
        public string $box = '',
    ) {
    }

    public static function ofFields(Fields $fields): self
    {
        return new self(
            $fields->maybeString('holder') ?? '',
            $fields->maybeString('contact') ?? '',
            $fields->maybeString('notes') ?? '',
            $fields->maybeString('box') ?? '',
        );
    }

    public function fields(): array
    {
        return ['holder' => $this->holder, 'contact' => $this->contact, 'notes' => $this->notes, 'box' => $this->box];
    }

    /** @return list<string> what is noted, without what was noted: the Journal keeps no names of owners */
    public function noted(): array
    {
        return array_keys(array_filter($this->fields(), static fn (mixed $text): bool => $text !== ''));
    }
}
