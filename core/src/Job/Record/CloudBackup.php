<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Route\BaseUse;
use JadeStep\Core\Route\HeldBackup;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;

/** A backup that the owner's cloud holds, as a person tells of it. */
final readonly class CloudBackup implements Kept
{
    /** @param  list<Kind>  $kinds */
    public function __construct(public \DateTimeImmutable $takenAt, public Version $madeOn, public array $kinds)
    {
    }

    /** As the planner knows it. */
    public function held(): HeldBackup
    {
        return new HeldBackup(
            BaseUse::CLOUD,
            true,
            $this->takenAt,
            $this->madeOn,
            $this->madeOn,
            false,
            false,
            false,
            $this->kinds,
            [],
        );
    }

    public static function ofFields(Fields $fields): self
    {
        return new self($fields->time('takenAt'), $fields->version('madeOn'), $fields->enums('kinds', Kind::class));
    }

    public function fields(): array
    {
        return [
            'takenAt' => Rfc3339::format($this->takenAt),
            'madeOn' => (string) $this->madeOn,
            'kinds' => array_column($this->kinds, 'value'),
        ];
    }
}
