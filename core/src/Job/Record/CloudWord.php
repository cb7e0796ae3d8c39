<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Time\Rfc3339;

/** A person's word for what the owner's cloud holds. */
final readonly class CloudWord implements Kept
{
    /** @param  array<string, \DateTimeImmutable>  $syncs  when each kind last synced, by its code */
    public function __construct(
        public ?CloudBackup $backup,
        public array $syncs,
        public string $by,
        public \DateTimeImmutable $at,
    ) {
    }

    public function syncedAt(Kind $kind): ?\DateTimeImmutable
    {
        return $this->syncs[$kind->value] ?? null;
    }

    public static function ofFields(Fields $fields): self
    {
        $backup = $fields->maybeIn('backup');
        $syncs = array_map(static fn (string $t): \DateTimeImmutable => Rfc3339::parse($t), $fields->texts('syncs'));

        return new self(
            $backup === null ? null : CloudBackup::ofFields($backup),
            $syncs,
            $fields->string('by'),
            $fields->time('at'),
        );
    }

    public function fields(): array
    {
        return [
            'backup' => $this->backup?->fields(), 'syncs' => (object) array_map(Rfc3339::format(...), $this->syncs),
            'by' => $this->by, 'at' => Rfc3339::format($this->at),
        ];
    }
}
