<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Time\Rfc3339;

/** That the device said no to a backup, in its words. */
final readonly class RefusedBase implements Kept
{
    public function __construct(public string $backup, public string $words, public \DateTimeImmutable $at)
    {
    }

    public static function ofFields(Fields $fields): self
    {
        return new self($fields->string('backup'), $fields->string('words'), $fields->time('at'));
    }

    public function fields(): array
    {
        return ['backup' => $this->backup, 'words' => $this->words, 'at' => Rfc3339::format($this->at)];
    }
}
