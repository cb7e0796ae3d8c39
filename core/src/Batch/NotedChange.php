<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Time\Rfc3339;

/** What was different when a schedule was made again, and when. */
final readonly class NotedChange implements Kept
{
    /**
     * @param  list<string>  $words  whole sentences
     * @param  list<string>  $devices  ids of those that are late now, or in time again
     */
    public function __construct(public \DateTimeImmutable $at, public array $words, public array $devices)
    {
    }

    public static function ofFields(Fields $fields): self
    {
        return new self($fields->time('at'), $fields->strings('words'), $fields->strings('devices'));
    }

    public function fields(): array
    {
        return ['at' => Rfc3339::format($this->at), 'words' => $this->words, 'devices' => $this->devices];
    }
}
